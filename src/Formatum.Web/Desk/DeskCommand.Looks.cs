using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>How frames look.</summary>
public sealed partial record DeskCommand
{
    /// <summary>What of the look is changed, to what was typed as the value.</summary>
    public string? Look { get; init; }

    private ChangeLook ChangeLook(Publication publication)
    {
        var errors = new FieldErrors();
        string value = Value?.Trim() ?? "";
        var now = Only(publication).Look;
        double? Distance(LengthUnit unit, double? current, bool negative = false) => SettingText.Length($"look.{Look}", value, unit, current ?? 0, negative,
            errors);
        double? Share()
        {
            if (SettingText.Percentage(value) is { } share) return share;
            errors.Add($"look.{Look}", $"\u201c{value}\u201d is not a percentage. Type a number from 0 to 100.");
            return null;
        }
        var unit = publication.Setup.Unit;
        var change = Look switch
        {
            "border.width" => new LookChange { BorderWidth = value is "" or "none" ? 0 : Distance(LengthUnit.Point, now.Border?.Width) },
            "border.colour" => new() { BorderColour = value },
            "background" => new() { Background = new(value is "" or "none" ? null : value) },
            "opacity" => new() { Opacity = Share() },
            "shadow" => new() { Shadow = value == "true" },
            "shadow.across" => new() { ShadowAcross = Distance(unit, now.Shadow?.Across, true) },
            "shadow.down" => new() { ShadowDown = Distance(unit, now.Shadow?.Down, true) },
            "shadow.blur" => new() { ShadowBlur = Distance(unit, now.Shadow?.Blur) },
            "shadow.colour" => new() { ShadowColour = value },
            "shadow.strength" => new() { ShadowStrength = Share() },
            _ => throw new EditRefused("look", $"A look has no \"{Look}\"."),
        };
        errors.ThrowIfAny();
        return new(FrameIds, change);
    }
}
