using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>One setting of the chosen frames.</summary>
/// <param name="Setting">Which.</param>
/// <param name="Value">As a field shows it; null where the frames differ.</param>
/// <param name="SetHere">Whether some of the frames set it themselves.</param>
/// <param name="SetWords">How many of them do, in words.</param>
/// <param name="Source">Where it comes from, in words.</param>
/// <param name="Beneath">What it would be if it were cleared, in words, where it is set here.</param>
public sealed record SettingState(FitSetting Setting, string? Value, bool SetHere, string SetWords, string Source, string? Beneath)
{
    public string Field => SettingText.Field(Setting);
}

/// <summary>The chosen frames and what they have in common.</summary>
public sealed class SelectionView(Publication publication, IReadOnlyList<Frame> frames)
{
    private readonly ResolvedFit[] _fits = [.. frames.Select(publication.FitOf)];

    public IReadOnlyList<Frame> Frames => frames;

    public bool AnySetHere => frames.Any(f => !f.Own.IsOpen);

    /// <summary>Whether a picture lies otherwise than its fit would have it, since its frame does not stay fitted and changed.</summary>
    public bool AnyHolds => frames.Any(f => f.Held is { } held && !publication.FitOf(f).StaysFitted
        && publication.FittedOf(f with { Held = null }) is { } anew && new[] { new Vec(0, 0), new Vec(1, 0), new Vec(0, 1) }
            .Any(corner => (held.Matrix.Apply(corner) - anew.Placement.Matrix.Apply(corner)).Length > Hair));

    /// <summary>Less is dust that rounding leaves, in points.</summary>
    private const double Hair = 0.01;

    /// <summary>The fit's settings where all frames agree on the value; else null.</summary>
    public T? Common<T>(Func<ResolvedFit, T> value) where T : struct => _fits.Select(value).Distinct().Take(2).ToList() is [var only] ? only : null;

    /// <summary>The rule all frames have; null in it for none. Null where they differ.</summary>
    public (int? RuleId, bool Mixed) Rule => frames.Select(f => f.RuleId).Distinct().Take(2).ToList() is [var only] ? (only, false) : (null, true);

    public SettingState State(FitSetting setting)
    {
        var unit = publication.Setup.Unit;
        var values = _fits.Select(fit => SettingText.Value(setting, fit, unit)).Distinct().Take(2).ToList();
        var sources = frames.Select(f => Cascade.SourceOf(publication, f, setting)).Distinct().Take(2).ToList();
        int set = frames.Count(f => f.Own.IsSet(setting));
        bool setHere = set > 0;
        string source = sources is not [var only] ? "from several places" : only.SetHere ? "set here" : only.Rule is { } rule ? "from " + rule.Name
            : "built in";
        string? beneath = setHere && frames is [var frame] ? Beneath(frame, setting) : null;
        return new(setting, values is [var value] ? value : null, setHere, set == frames.Count ? "set here" : $"set on {set} of {frames.Count}", source,
            beneath);
    }

    private string Beneath(Frame frame, FitSetting setting)
    {
        string value = SettingText.Words(setting, publication.FitOfRule(frame.RuleId), publication.Setup.Unit);
        return $"{Cascade.RuleSaying(publication, frame.RuleId, setting)?.Name ?? "built in"}: {value}";
    }
}
