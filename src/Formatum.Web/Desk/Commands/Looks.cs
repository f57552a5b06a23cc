using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>One thing about how frames look is set.</summary>
public sealed record SetLook : Gesture, IUnderHand
{
    /// <summary>What of the look, such as "border.width".</summary>
    public string? Look { get; init; }

    /// <summary>What was typed or chosen.</summary>
    public string? Value { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var errors = new FieldErrors();
        var change = Change(ground.Publication, ground.Publication.LookOf(FirstFrame(ground)), Value?.Trim() ?? "", errors);
        errors.ThrowIfAny();
        return new ChangeLook(FrameIds, change);
    }

    /// <summary>What the treatment of pictures would come to while a slider is moved.</summary>
    public UnderWay UnderWay(Ground ground, bool inside)
    {
        var after = ground.Publication.With(ToEdit(ground).On(ground.Publication));
        return Desk.UnderWay.Nothing with
        {
            Filters = [.. FrameIds.Select(after.Frames.GetValueOrDefault).OfType<Frame>().Where(f => f.ImageId is not null)
            .Select(f => FilterPatch.Of(after, f))]
        };
    }

    private LookChange Change(Publication publication, Look now, string value, FieldErrors errors)
    {
        var unit = publication.Setup.Unit;
        string field = $"look.{Look}";
        bool isNone = value is "" or "none";
        double? Distance(LengthUnit of, double? current, bool negative = false) => SettingText.Length(field, value, of, current ?? 0, negative, errors);
        Colour? Colour() => ColourText.Read(publication, field, value, errors);
        double? Share()
        {
            if (SettingText.Percentage(value) is { } share) return share;
            errors.Add(field, $"\u201c{value}\u201d is not a percentage. Type a number from 0 to 100.");
            return null;
        }
        return Look switch
        {
            "background" => new() { Background = new(isNone ? null : Colour()) },
            "opacity" => new() { Opacity = Share() },
            "shadow" => new() { Shadow = value == "true" },
            "shadow.across" => new() { ShadowAcross = Distance(unit, now.Shadow?.Across, true) },
            "shadow.down" => new() { ShadowDown = Distance(unit, now.Shadow?.Down, true) },
            "shadow.blur" => new() { ShadowBlur = Distance(unit, now.Shadow?.Blur) },
            "shadow.colour" => new() { ShadowColour = Colour() },
            "shadow.strength" => new() { ShadowStrength = Share() },
            { } part when part.StartsWith("border.", StringComparison.Ordinal) => new()
            {
                Border = BorderText.Change(part, value, field, publication, now.Border, errors),
            },
            { } part when part.StartsWith("corners.", StringComparison.Ordinal) => new()
            {
                Corners = BorderText.Corners(part, value, field, unit, now.Corners, errors),
            },
            { } part when part.StartsWith("treatment", StringComparison.Ordinal) => new()
            {
                Treatment = TreatmentText.Change(part, value, field, publication, errors),
            },
            _ => throw new EditRefused("look", $"A look has no \"{Look}\"."),
        };
    }
}
