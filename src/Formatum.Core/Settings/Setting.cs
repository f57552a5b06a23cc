using Formatum.Core.Checks;

namespace Formatum.Core.Settings;

/// <summary>What a setting's value is: how it is typed and shown goes by that.</summary>
public enum SettingKind
{
    /// <summary>One of a list of names.</summary>
    Choice,
    YesNo,
    /// <summary>In points.</summary>
    Length,
    /// <summary>A share of a whole, 1 for all of it.</summary>
    Share,
    /// <summary>In degrees, clockwise.</summary>
    Angle,
    /// <summary>In pixels per inch; 0 for none.</summary>
    Resolution,
    /// <summary>1 for natural size; 0 for none.</summary>
    Scale,
    Number,
    Colour,
    /// <summary>Tab stops.</summary>
    Tabs,
    /// <summary>Made of several figures.</summary>
    Several,
}

/// <summary>
/// One of several settings of which each may be left open: a rule's, a style's, a look's. All that is told of it anywhere stands here: what it is called,
/// what it is, what it may be.
/// </summary>
/// <typeparam name="TSettings">The settings it is one of.</typeparam>
/// <param name="name">Its name in the code and in forms: "InsetTop".</param>
/// <param name="path">Its name in the automation interface: "inset.top".</param>
/// <param name="label">What people read.</param>
/// <param name="kind">What its value is.</param>
public abstract class Setting<TSettings>(string name, string path, string label, SettingKind kind)
{
    public string Name { get; } = name;
    public string Path { get; } = path;
    public string Label { get; } = label;
    public SettingKind Kind { get; } = kind;

    /// <summary>The least and the most a number may be, and what to do about one beyond; null where anything goes.</summary>
    public (double Least, double Most, string Remedy)? Range { get; init; }

    /// <summary>The value; null where it is left open.</summary>
    public abstract object? ValueOf(TSettings settings);

    /// <summary>The settings with this one as it is in others.</summary>
    public abstract TSettings Taken(TSettings settings, TSettings from);

    /// <summary>The settings with this one left open.</summary>
    public abstract TSettings Opened(TSettings settings);

    /// <summary>The settings with this one set.</summary>
    /// <exception cref="InvalidCastException">The value is of another kind.</exception>
    public abstract TSettings Set(TSettings settings, object value);

    public bool IsSet(TSettings settings) => ValueOf(settings) is not null;

    public void Check(TSettings settings, FieldErrors errors, string prefix)
    {
        if (ValueOf(settings) is Enum choice) errors.Choice(prefix + Path, choice);
        if (Range is var (least, most, remedy)) errors.Range(prefix + Path, (double?)ValueOf(settings), least, most, remedy);
    }
}

/// <inheritdoc/>
/// <typeparam name="TSettings">The settings it is one of.</typeparam>
/// <typeparam name="TValue">The type of its value.</typeparam>
public sealed class Setting<TSettings, TValue>(
    string name, string path, string label, SettingKind kind, Func<TSettings, TValue?> read, Func<TSettings, TValue?, TSettings> write)
        : Setting<TSettings>(name, path, label, kind)
    where TValue : struct
{
    public override object? ValueOf(TSettings settings) => read(settings);
    public override TSettings Taken(TSettings settings, TSettings from) => write(settings, read(from));
    public override TSettings Opened(TSettings settings) => write(settings, null);
    public override TSettings Set(TSettings settings, object value) => write(settings, (TValue)value);
}

/// <inheritdoc/>
/// <typeparam name="TSettings">The settings it is one of.</typeparam>
/// <typeparam name="TValue">The type of its value: words, or something made of several.</typeparam>
public sealed class WordSetting<TSettings, TValue>(
    string name, string path, string label, SettingKind kind, Func<TSettings, TValue?> read, Func<TSettings, TValue?, TSettings> write)
        : Setting<TSettings>(name, path, label, kind)
    where TValue : class
{
    public override object? ValueOf(TSettings settings) => read(settings);
    public override TSettings Taken(TSettings settings, TSettings from) => write(settings, read(from));
    public override TSettings Opened(TSettings settings) => write(settings, null);
    public override TSettings Set(TSettings settings, object value) => write(settings, (TValue)value);
}
