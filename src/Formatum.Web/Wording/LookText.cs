using System.Text.RegularExpressions;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Web.Wording;

/// <summary>Looks as text: shown in fields and in words, read back from what is typed or chosen.</summary>
public static class LookText
{
    /// <summary>A figure of a look as a field of its own.</summary>
    /// <param name="Name">As <see cref="Change"/> knows it.</param>
    /// <param name="Label">What people read.</param>
    /// <param name="Choices">What it may be; null where it is typed.</param>
    /// <param name="IsDistance">Whether it is typed in the publication's unit.</param>
    public sealed record Figure(string Name, string Label, IReadOnlyList<(string Value, string Words)>? Choices = null, bool IsDistance = false);

    /// <summary>In the words of the trade, which Compositing and Blending 1 shares.</summary>
    public static readonly (Blend Blend, string Words)[] Blends =
    [
        .. Enum.GetValues<Blend>().Select(b => (b, Regex.Replace(b.ToString(), "(?<=[a-z])(?=[A-Z])", " ") is var words
            ? words[..1] + words[1..].ToLowerInvariant().Replace("color", "colour", StringComparison.Ordinal) : "")),
    ];

    private const string GreyWeight = "treatment.grey.";

    private static readonly (string, string)[] YesNo = [("true", "yes"), ("false", "no")];

    /// <summary>The figures of each part, by the part's name.</summary>
    public static readonly IReadOnlyDictionary<string, Figure[]> Figures = new Dictionary<string, Figure[]>
    {
        ["Border"] =
        [
            new("border.width", "Width, pt"),
            new("border.kind", "Kind", [.. BorderText.Kinds.Select(k => (k.Kind.ToString(), k.Words))]),
            new("border.place", "Lies", [.. BorderText.Places.Select(p => (p.Place.ToString(), p.Words))]), new("border.colour", "Colour"),
            new("border.dashes", "Dashes, pt"), new("border.second.width", "Second line, pt"), new("border.second.gap", "Its gap, pt"),
        ],
        ["Corners"] =
        [
            new("corners.radius", "Radius", IsDistance: true),
            new("corners.kind", "Shape", [.. BorderText.CornerKinds.Select(k => (k.Kind.ToString(), k.Words))]),
        ],
        ["Background"] = [new("background", "Colour")],
        ["Opacity"] = [new("opacity", "Covers, %")],
        ["PictureOpacity"] = [new("pictureOpacity", "Covers, %")],
        ["BackgroundOpacity"] = [new("backgroundOpacity", "Covers, %")],
        ["Blend"] = [new("blend", "Mixed by", [.. Blends.Select(b => (b.Blend.ToString(), b.Words))])],
        ["Shadow"] =
        [
            new("shadow", "Falls", YesNo), new("shadow.across", "Across", IsDistance: true), new("shadow.down", "Down", IsDistance: true),
            new("shadow.blur", "Blur", IsDistance: true),
            new("shadow.colour", "Colour"), new("shadow.strength", "Strength, %"),
        ],
        ["InnerShadow"] =
        [
            new("innerShadow", "Falls", YesNo), new("innerShadow.across", "Across", IsDistance: true), new("innerShadow.down", "Down", IsDistance: true),
            new("innerShadow.blur", "Blur", IsDistance: true), new("innerShadow.colour", "Colour"), new("innerShadow.strength", "Strength, %"),
        ],
        ["SoftEdge"] = [new("softEdge", "Width", IsDistance: true)],
        ["Wrap"] =
        [
            new("wrap.around", "Text", [.. WrapText.Ways.Select(w => (w.Around.ToString(), w.Words))]), new("wrap.distance", "Keeps away", IsDistance: true),
            new("wrap.sides", "It stands", [.. WrapText.Sides.Select(s => (s.Sides.ToString(), s.Words))]),
        ],
        ["Treatment"] =
        [
            new("treatment.sharpen.amount", "Sharpened, %"), new("treatment.sharpen.radius", "Radius, pt"), new("treatment.blur", "Blur, pt"),
            new("treatment.grey", "Grey", YesNo), .. TreatmentText.Weights.Select(w => new Figure($"{GreyWeight}{w.Name}", $"{w.Label}, %")),
            new("treatment.brightness", "Brightness, %"), new("treatment.contrast", "Contrast, %"),
            new("treatment.saturation", "Saturation, %"), new("treatment.warmth", "Warmth, %"), new("treatment.black", "Black from, %"),
            new("treatment.white", "White from, %"), new("treatment.gamma", "Gamma"), new("treatment.invert", "Inverted", YesNo),
            new("treatment.inks", "Two inks", YesNo), new("treatment.inks.dark", "Shadows in"), new("treatment.inks.light", "Lights in"),
            new("treatment.tint", "Tint", YesNo), new("treatment.tint.colour", "Its colour"), new("treatment.tint.strength", "Its strength, %"),
        ],
    };

    /// <summary>A figure as its field shows it: what <see cref="Change"/> reads; empty where the look has none.</summary>
    public static string Value(Publication publication, Look look, string figure)
    {
        var unit = publication.Setup.Unit;
        string Colour(Colour? colour) => colour is null ? "" : ColourText.Value(publication, colour);
        string Distance(double? points) => points is { } p ? unit == LengthUnit.Pica ? Units.Text(p, unit) : Units.Number(p, unit) : "";
        string Points(double? points) => points is { } p ? SettingText.Number(p) : "";
        string Percent(double? share) => share is { } s ? TreatmentText.Percent(s) : "";
        var treatment = look.Treatment ?? Treatment.None;
        return figure switch
        {
            "border.width" => Points(look.Border?.Width),
            "border.kind" => look.Border?.Kind.ToString() ?? "",
            "border.place" => look.Border?.Place.ToString() ?? "",
            "border.colour" => Colour(look.Border?.Colour),
            "border.dashes" => BorderText.Dashes(look.Border?.Dashes),
            "border.second.width" => Points(look.Border?.Second?.Width),
            "border.second.gap" => Points(look.Border?.Second?.Gap),
            "corners.radius" => look.Corners is null ? "" : BorderText.Radii(look.Corners, unit),
            "corners.kind" => look.Corners?.Kind.ToString() ?? "",
            "background" => Colour(look.Background),
            "opacity" => Percent(look.Opacity),
            "pictureOpacity" => Percent(look.PictureOpacity),
            "backgroundOpacity" => Percent(look.BackgroundOpacity),
            "blend" => look.Blend.ToString(),
            "shadow" or "shadow.across" or "shadow.down" or "shadow.blur" or "shadow.colour" or "shadow.strength" =>
                ShadowText.Value(publication, look.Shadow, figure),
            _ when figure.StartsWith("innerShadow", StringComparison.Ordinal) => ShadowText.Value(publication, look.InnerShadow, figure),
            "softEdge" => Distance(look.SoftEdge),
            "wrap.around" => look.Wrap.Around.ToString(),
            "wrap.distance" => Distance(look.Wrap.Distance.Top),
            "wrap.sides" => look.Wrap.Sides.ToString(),
            "treatment.sharpen.amount" => Percent(treatment.Sharpen?.Amount),
            "treatment.sharpen.radius" => Points(treatment.Sharpen?.Radius),
            "treatment.blur" => Points(treatment.Blur),
            "treatment.grey" => treatment.Grey is null ? "false" : "true",
            _ when figure.StartsWith(GreyWeight, StringComparison.Ordinal) => Percent(treatment.Grey is { } mix
                ? TreatmentText.Weights.Single(w => w.Name == figure[GreyWeight.Length..]).Value(mix) : null),
            "treatment.brightness" => Percent(treatment.Brightness),
            "treatment.contrast" => Percent(treatment.Contrast),
            "treatment.saturation" => Percent(treatment.Saturation),
            "treatment.warmth" => Percent(treatment.Warmth),
            "treatment.black" => Percent(treatment.Black),
            "treatment.white" => Percent(treatment.White),
            "treatment.tint" => treatment.Tint is null ? "false" : "true",
            "treatment.tint.colour" => Colour(treatment.Tint?.Colour),
            "treatment.tint.strength" => Percent(treatment.Tint?.Strength),
            "treatment.gamma" => SettingText.Number(treatment.Gamma),
            "treatment.invert" => treatment.Invert ? "true" : "false",
            "treatment.inks" => treatment.Inks is null ? "false" : "true",
            "treatment.inks.dark" => Colour(treatment.Inks?.Dark),
            "treatment.inks.light" => Colour(treatment.Inks?.Light),
            _ => throw new ArgumentException($"A look has no {figure}."),
        };
    }

    /// <summary>A part of a look in words: "2 pt double, inside".</summary>
    public static string Words(Publication publication, Look look, string part)
    {
        string Of(string figure) => Value(publication, look, figure);
        return part switch
        {
            "Border" when look.Border is { } b => $"{SettingText.Number(b.Width)} pt {BorderText.Kinds.First(k => k.Kind == b.Kind).Words.ToLowerInvariant()}, "
                + $"{Of("border.colour")}{(b.Second is null ? "" : ", more lines")}",
            "Corners" when look.Corners is { } c => $"{BorderText.CornerKinds.First(k => k.Kind == c.Kind).Words.ToLowerInvariant()}, {Of("corners.radius")} "
                + Units.Symbol(publication.Setup.Unit),
            "Corners" => "sharp",
            "Background" when look.Background is not null => Of("background"),
            "Opacity" => Of("opacity") + " %",
            "PictureOpacity" => Of("pictureOpacity") + " %",
            "BackgroundOpacity" => Of("backgroundOpacity") + " %",
            "Blend" => Blends.First(b => b.Blend == look.Blend).Words.ToLowerInvariant(),
            "Shadow" when look.Shadow is { } s => $"{Of("shadow.blur")} {Units.Symbol(publication.Setup.Unit)} soft, {Of("shadow.strength")} %",
            "InnerShadow" when look.InnerShadow is not null =>
                $"{Of("innerShadow.blur")} {Units.Symbol(publication.Setup.Unit)} soft, {Of("innerShadow.strength")} %",
            "Wrap" when look.Wrap.Around != WrapAround.None => WrapText.Ways.First(w => w.Around == look.Wrap.Around).Words,
            "SoftEdge" when look.SoftEdge > 0 => $"{Of("softEdge")} {Units.Symbol(publication.Setup.Unit)}",
            "Treatment" when look.Treatment is { } t => string.Join(", ", new[] { t.IsOff ? "put aside" : null, t.Grey is null ? null : "grey",
                t.Sharpen is null ? null : "sharpened", t.Blur > 0 ? "blurred" : null,
                t.Inks is null ? null : "two inks", t.Invert ? "inverted" : null, "tones" }.OfType<string>().Take(2)),
            _ => "none",
        };
    }

    /// <summary>What a figure that was typed or chosen makes of a look.</summary>
    /// <param name="publication">Whose unit and palette are meant.</param>
    /// <param name="now">The look that "+1" and "50 %" are meant of.</param>
    /// <param name="part">Which figure: "border.width".</param>
    /// <param name="value">What was typed or chosen.</param>
    /// <param name="errors">Takes what is wrong, by the figure's name.</param>
    /// <exception cref="EditRefused">There is no such figure.</exception>
    public static LookChange Change(Publication publication, Look now, string part, string value, FieldErrors errors)
    {
        var unit = publication.Setup.Unit;
        string field = $"look.{part}";
        bool isNone = value is "" or "none";
        // What the field shows is what arithmetic goes on from.
        double Current() => SettingText.Number(Value(publication, now, part)) ?? 0;
        double? Distance(LengthUnit of, double? current, bool negative = false) => SettingText.Length(field, value, of, current ?? 0, negative, errors);
        Colour? Colour() => ColourText.Read(publication, field, value, errors);
        double? Share()
        {
            if (FigureText.Share(value, Current() / 100) is { } share) return share;
            errors.Add(field, $"\u201c{value}\u201d is not a percentage. Type a number from 0 to 100.");
            return null;
        }
        return part switch
        {
            "background" => new() { Background = new(isNone ? null : Colour()) },
            "opacity" => new() { Opacity = Share() },
            "pictureOpacity" => new() { PictureOpacity = Share() },
            "backgroundOpacity" => new() { BackgroundOpacity = Share() },
            "blend" => new() { Blend = SettingText.Choice<Blend>(field, value, errors) },
            "wrap.around" or "wrap.distance" or "wrap.sides" => new() { Wrap = WrapText.Change(part, value, field, unit, now.Wrap, errors) },
            "softEdge" => new() { SoftEdge = isNone ? 0 : Distance(unit, now.SoftEdge) },
            "shadow" or "shadow.across" or "shadow.down" or "shadow.blur" or "shadow.colour" or "shadow.strength" => new()
            {
                Shadow = ShadowText.Change(part, value, field, publication, now.Shadow, errors),
            },
            _ when part.StartsWith("innerShadow", StringComparison.Ordinal) => new()
            {
                InnerShadow = ShadowText.Change(part, value, field, publication, now.InnerShadow, errors),
            },
            _ when part.StartsWith("border.", StringComparison.Ordinal) => new()
            {
                Border = BorderText.Change(part, value, field, publication, now.Border, errors),
            },
            _ when part.StartsWith("corners.", StringComparison.Ordinal) => new()
            {
                Corners = BorderText.Corners(part, value, field, unit, now.Corners, errors),
            },
            _ when part.StartsWith("treatment", StringComparison.Ordinal) => new()
            {
                Treatment = TreatmentText.Change(part, value, field, publication, (now.Treatment ?? Treatment.None, Current), errors),
            },
            _ => throw new EditRefused("look", $"A look has no \"{part}\"."),
        };
    }
}
