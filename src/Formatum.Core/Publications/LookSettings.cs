using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Settings;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>The parts of a look, of which any may be left open (null): a named look's, or what was set on one frame.</summary>
public sealed record LookSettings
{
    public static readonly LookSettings Open = new();

    public Given<Border>? Border { get; init; }
    public Given<Corners>? Corners { get; init; }
    public Given<Colour>? Background { get; init; }
    public double? Opacity { get; init; }
    public double? PictureOpacity { get; init; }
    public double? BackgroundOpacity { get; init; }
    public Blend? Blend { get; init; }
    public Given<Shadow>? Shadow { get; init; }
    public Given<Shadow>? InnerShadow { get; init; }
    public double? SoftEdge { get; init; }
    public Given<Treatment>? Treatment { get; init; }

    /// <summary>How text keeps clear; what is set about that on a frame itself stands over it.</summary>
    public Wrap? Wrap { get; init; }

    /// <summary>All that a look says beyond a plain one.</summary>
    public static implicit operator LookSettings(Look look) => Between(Look.Plain, look);

    /// <summary>Every part, in the order people read them.</summary>
    public static readonly ImmutableArray<Setting<LookSettings>> All =
    [
        new Setting<LookSettings, Given<Border>>("Border", "border", "Border", SettingKind.Several, s => s.Border, (s, v) => s with { Border = v }),
        new Setting<LookSettings, Given<Corners>>("Corners", "corners", "Corners", SettingKind.Several, s => s.Corners, (s, v) => s with { Corners = v }),
        new Setting<LookSettings, Given<Colour>>("Background", "background", "Background", SettingKind.Several, s => s.Background,
            (s, v) => s with { Background = v }),
        new Setting<LookSettings, double>("Opacity", "opacity", "Opacity", SettingKind.Share, s => s.Opacity, (s, v) => s with { Opacity = v }),
        new Setting<LookSettings, double>("PictureOpacity", "pictureOpacity", "Picture's opacity", SettingKind.Share, s => s.PictureOpacity,
            (s, v) => s with { PictureOpacity = v }),
        new Setting<LookSettings, double>("BackgroundOpacity", "backgroundOpacity", "Background's opacity", SettingKind.Share, s => s.BackgroundOpacity,
            (s, v) => s with { BackgroundOpacity = v }),
        new Setting<LookSettings, Blend>("Blend", "blend", "Blending", SettingKind.Choice, s => s.Blend, (s, v) => s with { Blend = v }),
        new Setting<LookSettings, Given<Shadow>>("Shadow", "shadow", "Shadow", SettingKind.Several, s => s.Shadow, (s, v) => s with { Shadow = v }),
        new Setting<LookSettings, Given<Shadow>>("InnerShadow", "innerShadow", "Inner shadow", SettingKind.Several, s => s.InnerShadow,
            (s, v) => s with { InnerShadow = v }),
        new Setting<LookSettings, double>("SoftEdge", "softEdge", "Soft edge", SettingKind.Length, s => s.SoftEdge, (s, v) => s with { SoftEdge = v }),
        new Setting<LookSettings, Given<Treatment>>("Treatment", "treatment", "Treatment", SettingKind.Several, s => s.Treatment,
            (s, v) => s with { Treatment = v }),
        new WordSetting<LookSettings, Wrap>("Wrap", "wrap", "Wrap", SettingKind.Several, s => s.Wrap, (s, v) => s with { Wrap = v }),
    ];

    public bool IsOpen => this == Open;

    /// <summary>These settings, with what they leave open taken from others.</summary>
    public LookSettings Over(LookSettings weaker) => IsOpen ? weaker : weaker.IsOpen ? this : Layers.Over(All, this, weaker);

    /// <summary>Only the parts that are to be kept; the others are left open.</summary>
    public LookSettings Kept(Func<Setting<LookSettings>, bool> keep) => Layers.Kept(All, this, keep);

    /// <summary>What is open is as a plain look has it.</summary>
    public Look Resolve() => IsOpen ? Look.Plain : new()
    {
        Border = Border?.Value,
        Corners = Corners?.Value,
        Background = Background?.Value,
        Opacity = Opacity ?? Look.Plain.Opacity,
        PictureOpacity = PictureOpacity ?? Look.Plain.PictureOpacity,
        BackgroundOpacity = BackgroundOpacity ?? Look.Plain.BackgroundOpacity,
        Blend = Blend ?? Look.Plain.Blend,
        Shadow = Shadow?.Value,
        InnerShadow = InnerShadow?.Value,
        SoftEdge = SoftEdge ?? Look.Plain.SoftEdge,
        Treatment = Treatment?.Value,
        Wrap = Wrap ?? Look.Plain.Wrap,
    };

    /// <summary>Every part of a look set.</summary>
    public static LookSettings Whole(Look look) => new()
    {
        Border = look.Border,
        Corners = look.Corners,
        Background = look.Background,
        Opacity = look.Opacity,
        PictureOpacity = look.PictureOpacity,
        BackgroundOpacity = look.BackgroundOpacity,
        Blend = look.Blend,
        Shadow = look.Shadow,
        InnerShadow = look.InnerShadow,
        SoftEdge = look.SoftEdge,
        Treatment = look.Treatment,
        Wrap = look.Wrap,
    };

    /// <summary>What makes one look another.</summary>
    public static LookSettings Between(Look from, Look to)
    {
        LookSettings was = Whole(from), will = Whole(to);
        return will.Kept(s => !Equals(s.ValueOf(was), s.ValueOf(will)));
    }

    /// <summary>The colours in what is set.</summary>
    public IEnumerable<Colour> AllColours() => Resolve().AllColours();

    /// <summary>The settings with every colour put in another's place.</summary>
    public LookSettings Recoloured(Func<Colour, Colour> colour) => Whole(Resolve().Recoloured(colour)).Kept(s => s.IsSet(this));

    public void Check(FieldErrors errors) => Resolve().Check(errors);
}
