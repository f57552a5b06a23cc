using System.Globalization;
using System.Text;
using System.Text.Json;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Publications;

namespace Formatum.Web.Colours;

/// <summary>Palettes as files: as plain text that many programs read (".gpl": a head, then a line for each colour with red, green, blue and its name), or as
/// JSON with all figures.</summary>
public static class PaletteFile
{
    private const string Head = "GIMP Palette";

    /// <summary>A file has no more bytes.</summary>
    public const int MostBytes = 1 << 20;

    private static readonly JsonSerializerOptions Written = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull,
    };

    public static string Gpl(Publication publication)
    {
        var text = new StringBuilder().Append(Head).Append('\n').Append("Name: ").Append(OneLine(publication.Setup.Name)).Append("\nColumns: 0\n#\n");
        foreach (var colour in publication.Colours.Values.OrderBy(c => c.Id))
        {
            var (r, g, b) = publication.ColourOf(colour.Colour).Shown;
            text.Append(CultureInfo.InvariantCulture, $"{r,3} {g,3} {b,3}\t{OneLine(colour.Name)}\n");
        }
        return text.ToString();
    }

    private static string OneLine(string text) => new([.. text.Where(c => !char.IsControl(c))]);

    public static byte[] Json(Publication publication) => JsonSerializer.SerializeToUtf8Bytes(publication.Colours.Values.OrderBy(c => c.Id).Select(c =>
        new PaletteColourBody
        {
            Name = c.Name,
            Rgb = (c.Colour as RgbColour)?.Text,
            Cmyk = c.Colour is CmykColour k ? [k.Cyan, k.Magenta, k.Yellow, k.Key] : null,
            Grey = (c.Colour as GreyColour)?.Ink,
            Spot = c.IsSpot,
        }), Written);

    /// <summary>Reads a palette file of either kind.</summary>
    /// <exception cref="EditRefused">It is none; the message says where it goes wrong.</exception>
    public static IReadOnlyList<PaletteColour> Read(byte[] file)
    {
        if (file.Length > MostBytes) throw new EditRefused("file", "It is larger than 1 MB, which no palette is. Choose another file.");
        string text = Encoding.UTF8.GetString(file).TrimStart('\ufeff');
        return text.TrimStart().StartsWith('[') ? OfJson(text) : OfGpl(text);
    }

    private static List<PaletteColour> OfJson(string text)
    {
        try
        {
            var read = JsonSerializer.Deserialize<PaletteColourBody[]>(text, Written)!;
            return read.Any(c => c is null) ? throw new JsonException() : [.. read.Select(c => c.ToColour())];
        }
        catch (JsonException)
        {
            throw new EditRefused("file", "It is no palette: its JSON is not a list of colours, each with a name and rgb, cmyk or grey.");
        }
    }

    private static List<PaletteColour> OfGpl(string text)
    {
        string[] lines = text.Split('\n');
        if (lines[0].Trim() != Head)
            throw new EditRefused("file", $"It is no palette: a .gpl file begins with the line \u201c{Head}\u201d. A palette as JSON is taken too.");
        var names = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        var colours = new List<PaletteColour>();
        for (int i = 1; i < lines.Length; i++)
        {
            string line = lines[i].Trim();
            if (line.Length == 0 || line[0] == '#' || (colours.Count == 0 && line.Contains(':', StringComparison.Ordinal))) continue;
            string[] parts = line.Split([' ', '\t'], 4, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
            var shares = parts.Take(3).Select(p => byte.TryParse(p, NumberStyles.None, CultureInfo.InvariantCulture, out byte v) ? v : (byte?)null).ToList();
            if (shares.Count < 3 || shares.Any(s => s is null))
                throw new EditRefused("file", $"Line {i + 1} is no colour: there are three numbers from 0 to 255, and a name. Mend the file, or choose " +
                    "another.");
            var colour = new RgbColour(shares[0]!.Value, shares[1]!.Value, shares[2]!.Value);
            colours.Add(new() { Id = 1, Name = Unique(names, parts.Length > 3 ? parts[3] : colour.Text[1..]), Colour = colour });
            if (colours.Count > PaletteColour.Most) throw new EditRefused("file", $"It holds more than {PaletteColour.Most:#,0} colours. Take fewer.");
        }
        return colours.Count > 0 ? colours : throw new EditRefused("file", "There are no colours in it. Choose another file.");
    }

    /// <summary>Such files give many colours one name: "Untitled", "Untitled 2".</summary>
    private static string Unique(Dictionary<string, int> names, string name)
    {
        string stem = OneLine(name).TrimStart('#') is { Length: > 0 } clean ? clean[..Math.Min(clean.Length, PaletteColour.LongestName - 8)] : "Colour";
        for (; ; )
        {
            int count = names[stem] = names.GetValueOrDefault(stem) + 1;
            string made = count == 1 ? stem : string.Create(CultureInfo.InvariantCulture, $"{stem} {count}");
            if (count == 1 || names.TryAdd(made, 1)) return made;
        }
    }
}
