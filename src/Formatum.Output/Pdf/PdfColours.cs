using System.Text;
using Formatum.Core.Colours;
using Formatum.Imaging;
using Formatum.Output.Press;

namespace Formatum.Output.Pdf;

/// <summary>
/// The one place where colours become those of a PDF. A file for print says inks: of its output intent, and of plates of their own; what was given as light
/// keeps its profile, or is converted. A file for screens says everything as sRGB.
/// </summary>
/// <param name="file">The file.</param>
/// <param name="press">What the file is printed on; null for a file for screens.</param>
/// <param name="convert">Whether light becomes inks here; else whoever prints converts it, by its profile.</param>
internal sealed class PdfColours(PdfFile file, PressConversion? press, bool convert)
{
    private readonly Dictionary<string, int> _profiles = [];
    private readonly Dictionary<(string Name, CmykColour StandIn), int> _spots = [];
    private int _all;

    public bool IsPrint => press is not null;

    public PressConversion? Press => press;

    public bool Convert => convert;

    /// <summary>The space in which what is transparent is mixed (ISO 32000-1, 11.4.7).</summary>
    public string Blending => IsPrint ? "/DeviceCMYK" : Srgb;

    public string Srgb => Space(ColourProfile.Srgb)!;

    /// <summary>A space of colours by its profile (8.6.5.5). One that is the intent's own is the device's (ISO 15930-7, 6.2.4.2).</summary>
    public string? Space(ColourProfile profile)
    {
        if (profile.Parts == 0 || profile.Space == "Lab ") return null;
        if (IsPrint && profile.ContentHash == press!.Press.ContentHash) return "/DeviceCMYK";
        if (_profiles.TryGetValue(profile.ContentHash, out int known)) return PdfSyntax.Reference(known);
        int stream = ProfileStream(profile);
        int space = file.Add($"[/ICCBased {PdfSyntax.Reference(stream)}]");
        _profiles[profile.ContentHash] = space;
        return PdfSyntax.Reference(space);
    }

    /// <summary>A profile as a stream, for a space or an output intent.</summary>
    public int ProfileStream(ColourProfile profile) => file.AddPacked($"/N {profile.Parts}/Alternate/{profile.Parts switch
    {
        1 => "DeviceGray",
        3 => "DeviceRGB",
        _ => "DeviceCMYK",
    }}", profile.Bytes);

    /// <summary>Says in which colour is painted from now on.</summary>
    public void Fill(PdfContent content, Colour colour) => Set(content, colour, "k", "cs", "scn");

    /// <summary>Says in which colour lines are drawn from now on.</summary>
    public void Stroke(PdfContent content, Colour colour) => Set(content, colour, "K", "CS", "SCN");

    /// <summary>Marks for whoever cuts and registers stand on every plate.</summary>
    public void StrokeOnAllPlates(PdfContent content)
    {
        if (!IsPrint)
        {
            Stroke(content, Colour.Black);
            return;
        }
        if (_all == 0) _all = Separation("All", new CmykColour(1, 1, 1, 1));
        content.Add($"{content.Resource("ColorSpace", _all)} CS 1 SCN");
    }

    private void Set(PdfContent content, Colour colour, string inks, string space, string parts)
    {
        switch (colour)
        {
            case SpotColour spot when IsPrint:
                content.Add($"{content.Resource("ColorSpace", SpotSpace(spot))} {space} 1 {parts}");
                break;
            case var _ when Inks(colour) is { } four:
                content.Add(inks, four.Cyan, four.Magenta, four.Yellow, four.Key);
                break;
            default:
                var shown = colour.Shown;
                // The space is of one object, which the resources name.
                _ = Srgb;
                content.Add($"{content.Resource("ColorSpace", _profiles[ColourProfile.Srgb.ContentHash])} {space}");
                content.Add(parts, shown.Red / 255.0, shown.Green / 255.0, shown.Blue / 255.0);
                break;
        }
    }

    /// <summary>The inks a colour is printed in; null where it is said as light. Black is ink black alone, however it was given.</summary>
    public CmykColour? Inks(Colour colour) => !IsPrint ? null
        : PressInks.Plain(colour, press!) ?? (convert && colour is RgbColour rgb ? press!.Inks(rgb) : null);

    /// <summary>A colour as the pixels of a picture: the space, and its parts from 0 to 1.</summary>
    public (string Space, double[] Parts) Sample(Colour colour) => (colour, Inks(colour)) switch
    {
        (SpotColour spot, _) when IsPrint => (PdfSyntax.Reference(SpotSpace(spot)), [1]),
        (_, { } four) => ("/DeviceCMYK", [four.Cyan, four.Magenta, four.Yellow, four.Key]),
        _ when colour.Shown is var shown => (Srgb, [shown.Red / 255.0, shown.Green / 255.0, shown.Blue / 255.0]),
        _ => throw new InvalidOperationException(),
    };

    /// <summary>The colours of a run, all in one space: without a colour in any of them ink black alone, and inks where light is converted here.</summary>
    public (string Space, List<double[]> Parts) Running(IReadOnlyCollection<RgbColour> run)
    {
        bool neutral = IsPrint && run.All(c => PressInks.Plain(c, press!) is not null);
        if (!neutral && !(IsPrint && convert)) return (Srgb, [.. run.Select(c => new[] { c.Red / 255.0, c.Green / 255.0, c.Blue / 255.0 })]);
        return ("/DeviceCMYK", [.. run.Select(c => neutral ? PressInks.Of(c, press!) : press!.Inks(c))
            .Select(four => new[] { four.Cyan, four.Magenta, four.Yellow, four.Key })]);
    }

    private int SpotSpace(SpotColour spot) => SpotSpace(spot.Name, PressInks.Of(spot.StandIn, press!));

    private int SpotSpace(string name, CmykColour standIn) => _spots.TryGetValue((name, standIn), out int known) ? known
        : _spots[(name, standIn)] = Separation(name, standIn);

    /// <summary>The space of a picture on several plates (8.6.6.5); each of its spot colours is described by itself too (ISO 15930-7, 6.2.4.5).</summary>
    public string Plates(TwoPlates two)
    {
        var plates = two.Plates;
        if (plates is [{ IsSpot: true } single]) return PdfSyntax.Reference(SpotSpace(single.Name, single.StandIn));
        string spots = string.Concat(plates.Where(p => p.IsSpot).Select(p => $"{PdfSyntax.Name(p.Name)} {PdfSyntax.Reference(SpotSpace(p.Name, p.StandIn))}"));
        int tint = file.AddPacked($"/FunctionType 4/Domain[{string.Join(' ', plates.Select(_ => "0 1"))}]/Range[0 1 0 1 0 1 0 1]",
            Encoding.ASCII.GetBytes(Mixed([.. plates.Select(p => p.StandIn)])));
        int space = file.Add($"[/DeviceN[{string.Concat(plates.Select(p => PdfSyntax.Name(p.Name)))}]/DeviceCMYK {PdfSyntax.Reference(tint)}" +
            $"<</Colorants<<{spots}>>>>]");
        return PdfSyntax.Reference(space);
    }

    /// <summary>What stands in for several plates at once: of each of the four inks the sum, and no more than there can be (7.10.5).</summary>
    private static string Mixed(CmykColour[] standIns)
    {
        int count = standIns.Length;
        var program = new StringBuilder("{");
        Func<CmykColour, double>[] parts = [s => s.Cyan, s => s.Magenta, s => s.Yellow, s => s.Key];
        for (int part = 0; part < parts.Length; part++)
        {
            // Above the plates lie the parts that are worked out already, and the sum.
            program.Append("0 ");
            for (int i = 0; i < count; i++)
                program.Append(System.Globalization.CultureInfo.InvariantCulture,
                    $"{part + count - i} index {PdfSyntax.Number(parts[part](standIns[i]))} mul add ");
            program.Append("dup 1 gt{pop 1}if ");
        }
        program.Append(System.Globalization.CultureInfo.InvariantCulture, $"{count + parts.Length} {parts.Length} roll ");
        return program.Append(string.Concat(Enumerable.Repeat("pop ", count))).Append('}').ToString();
    }

    /// <summary>A plate of its own (8.6.6.4), and what stands in where there is none.</summary>
    private int Separation(string name, CmykColour standIn) => file.Add($"[/Separation {PdfSyntax.Name(name)} /DeviceCMYK <</FunctionType 2/Domain[0 1]" +
        $"/C0[0 0 0 0]/C1[{PdfSyntax.Numbers(standIn.Cyan, standIn.Magenta, standIn.Yellow, standIn.Key)}]/N 1>>]");
}
