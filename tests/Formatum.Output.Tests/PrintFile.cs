using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>
/// A PDF held to what PDF/X-4 (ISO 15930-7:2010) asks of it, clause by clause, by way of qpdf, which shares nothing with the program that wrote it: qpdf gives
/// every object as JSON, with all streams decoded. The numbers of clauses and what they say are from memory.
/// </summary>
internal sealed partial class PrintFile
{
    private static readonly string[] Forbidden = ["/AA", "/OpenAction", "/JavaScript", "/JS", "/OPI", "/Alternates", "/PS", "/TR", "/HTP", "/Annots",
        "/AcroForm"];

    private readonly List<string> _faults = [];
    private readonly Dictionary<string, JsonElement> _objects = [];
    private readonly JsonElement _trailer;

    private PrintFile(string path)
    {
        string start = Encoding.Latin1.GetString(File.ReadAllBytes(path).AsSpan(0, 9));
        Hold(start is "%PDF-1.6\n", "6.1: the file is of version 1.6");
        using var json = JsonDocument.Parse(Tool.Run("qpdf", "--json=2", "--json-stream-data=inline", "--decode-level=generalized", path));
        foreach (var entry in json.RootElement.GetProperty("qpdf")[1].EnumerateObject())
        {
            if (entry.Name == "trailer") _trailer = entry.Value.GetProperty("value").Clone();
            else _objects[entry.Name[4..]] = entry.Value.Clone();
        }
    }

    /// <summary>What is wrong with a file; empty where nothing is.</summary>
    public static IReadOnlyList<string> Faults(string path)
    {
        var file = new PrintFile(path);
        file.CheckIdentity();
        file.CheckIntent();
        foreach (var value in file._objects.Values) file.CheckObject(value);
        file.CheckPages();
        return file._faults;
    }

    private void Hold(bool good, string clause)
    {
        if (!good) _faults.Add(clause);
    }

    private JsonElement At(JsonElement value)
    {
        while (value.ValueKind == JsonValueKind.String && _objects.TryGetValue(value.GetString()!, out var found))
            value = found.TryGetProperty("value", out var plain) ? plain : found.GetProperty("stream").GetProperty("dict");
        return value;
    }

    private JsonElement? Get(JsonElement dictionary, string key) =>
        At(dictionary) is { ValueKind: JsonValueKind.Object } d && d.TryGetProperty(key, out var value) ? At(value) : null;

    private static string Text(JsonElement? value) => value is { ValueKind: JsonValueKind.String } text ? text.GetString()! : "";

    private byte[] Data(string reference) => Convert.FromBase64String(_objects[reference].GetProperty("stream").GetProperty("data").GetString()!);

    private JsonElement Root => At(_trailer.GetProperty("/Root"));

    private void CheckIdentity()
    {
        Hold(_trailer.TryGetProperty("/ID", out var id) && id.GetArrayLength() == 2, "6.1: the trailer has an ID");
        Hold(!_trailer.TryGetProperty("/Encrypt", out _), "6.5: the file is not encrypted");
        var info = At(_trailer.GetProperty("/Info"));
        foreach (string key in new[] { "/Title", "/Creator", "/Producer" })
            Hold(Text(Get(info, key)).StartsWith("u:", StringComparison.Ordinal) && Text(Get(info, key)).Length > 2, $"6.9: the information has {key}");
        foreach (string key in new[] { "/CreationDate", "/ModDate" })
            Hold(Moment().IsMatch(Text(Get(info, key))), $"6.9: the information has {key}, with its zone");
        Hold(Text(Get(info, "/Trapped")) is "/True" or "/False", "6.11: the file says whether it is trapped");
        if (!Root.TryGetProperty("/Metadata", out var reference))
        {
            _faults.Add("6.15: the catalog has metadata");
            return;
        }
        string xmp = Encoding.UTF8.GetString(Data(reference.GetString()!));
        Hold(!_objects[reference.GetString()!].GetProperty("stream").GetProperty("dict").TryGetProperty("/Filter", out _), "6.15: metadata is not compressed");
        Hold(xmp.Contains("<pdfxid:GTS_PDFXVersion>PDF/X-4</pdfxid:GTS_PDFXVersion>", StringComparison.Ordinal), "6.15: metadata says PDF/X-4");
        foreach (string name in new[] { "xmp:CreateDate", "xmp:ModifyDate", "xmp:MetadataDate", "xmpMM:DocumentID", "xmpMM:VersionID", "xmpMM:RenditionClass" })
            Hold(Regex.IsMatch(xmp, $"<{name}>[^<]+</{name}>"), $"6.15: metadata has {name}");
        Hold(xmp.Contains($"<pdf:Trapped>{Text(Get(info, "/Trapped")).TrimStart('/')}</pdf:Trapped>", StringComparison.Ordinal),
            "6.15: metadata says the same of trapping");
        Hold(xmp.Contains(System.Net.WebUtility.HtmlEncode(Text(Get(info, "/Title"))[2..]), StringComparison.Ordinal), "6.15: metadata has the same title");
    }

    private void CheckIntent()
    {
        var intents = Get(Root, "/OutputIntents") is { } all ? [.. all.EnumerateArray().Where(i => Text(Get(i, "/S")) == "/GTS_PDFX")]
            : new List<JsonElement>();
        Hold(intents.Count == 1, "6.2.2: there is one output intent of the kind GTS_PDFX");
        if (intents.Count != 1) return;
        Hold(Text(Get(intents[0], "/OutputConditionIdentifier")).Length > 2, "6.2.2: the intent names its condition");
        Hold(Text(Get(intents[0], "/Info")).Length > 2 || Text(Get(intents[0], "/OutputConditionIdentifier")) != "u:Custom",
            "6.2.2: a custom one is described");
        if (!At(intents[0]).TryGetProperty("/DestOutputProfile", out var profile))
        {
            _faults.Add("6.2.2: the intent holds its profile");
            return;
        }
        byte[] icc = Data(profile.GetString()!);
        Hold(Encoding.ASCII.GetString(icc, 12, 4) == "prtr" && Encoding.ASCII.GetString(icc, 16, 4) == "CMYK", "6.2.3: the profile is of a press of four inks");
        Hold(Get(profile, "/N")?.GetInt32() == 4, "6.2.3: the profile's stream says four parts");
    }

    private void CheckObject(JsonElement entry)
    {
        var value = entry.TryGetProperty("value", out var plain) ? plain : entry.GetProperty("stream").GetProperty("dict");
        Walk(value, inProfile: value.ValueKind == JsonValueKind.Object && value.TryGetProperty("/N", out _));
        if (value.ValueKind != JsonValueKind.Object) return;
        string type = Text(Get(value, "/Type")), subtype = Text(Get(value, "/Subtype"));
        if (type == "/Font" && subtype is "/CIDFontType0" or "/CIDFontType2" or "/Type1" or "/TrueType")
        {
            var descriptor = Get(value, "/FontDescriptor");
            Hold(descriptor is { } d && (d.TryGetProperty("/FontFile", out _) || d.TryGetProperty("/FontFile2", out _)
                || d.TryGetProperty("/FontFile3", out _)),
                $"6.4: the font {Text(Get(value, "/BaseFont"))} is embedded");
        }
        if (subtype == "/Form") CheckContent(Encoding.Latin1.GetString(Convert.FromBase64String(entry.GetProperty("stream").GetProperty("data").GetString()!)));
    }

    /// <summary>Names that stand for something that must not be, wherever in an object.</summary>
    private void Walk(JsonElement value, bool inProfile)
    {
        switch (value.ValueKind)
        {
            case JsonValueKind.Object:
                foreach (var (key, inner) in value.EnumerateObject().Select(p => (p.Name, p.Value)))
                {
                    Hold(!Forbidden.Contains(key), $"6.6 to 6.14: there is no {key}");
                    if (!(inProfile && key == "/Alternate")) Walk(inner, inProfile: false);
                }
                break;
            case JsonValueKind.Array:
                foreach (var inner in value.EnumerateArray()) Walk(inner, inProfile: false);
                break;
            case JsonValueKind.String:
                Hold(value.GetString() is not ("/DeviceRGB" or "/CalRGB"), "6.2.4: no colours but the intent's and those with a profile");
                break;
        }
    }

    /// <summary>Operators that say device RGB by themselves.</summary>
    private void CheckContent(string content)
    {
        // What is shown stands in strings, which may look like operators.
        string bare = ShownText().Replace(content, " ");
        Hold(!DeviceRgb().IsMatch(bare), "6.2.4: no operator sets device RGB");
        Hold(!bare.Contains("BI\n", StringComparison.Ordinal), "no inline images are written");
    }

    private void CheckPages()
    {
        var pages = _objects.Where(o => o.Value.TryGetProperty("value", out var v) && Text(Get(v, "/Type")) == "/Page")
            .Select(o => o.Value.GetProperty("value"))
            .ToList();
        Hold(pages.Count > 0, "there are pages");
        foreach (var page in pages)
        {
            double[]? media = Box(page, "/MediaBox"), bleed = Box(page, "/BleedBox"), trim = Box(page, "/TrimBox"), crop = Box(page, "/CropBox");
            Hold(media is not null, "6.3: a page has its media box");
            Hold(trim is not null ^ page.TryGetProperty("/ArtBox", out _), "6.3: a page has a trim box or an art box, and not both");
            Hold(Within(trim, bleed) && Within(bleed, media) && Within(crop, media) && Within(trim, crop), "6.3: the boxes of a page lie within each other");
            Hold(Get(page, "/Group") is { } group && Text(Get(group, "/CS")) == "/DeviceCMYK", "6.2.4: what is transparent is mixed in the intent's colours");
            var contents = page.GetProperty("/Contents");
            foreach (var part in contents.ValueKind == JsonValueKind.Array ? [.. contents.EnumerateArray()] : new[] { contents })
                CheckContent(Encoding.Latin1.GetString(Data(part.GetString()!)));
        }
    }

    private double[]? Box(JsonElement page, string name) => Get(page, name) is { ValueKind: JsonValueKind.Array } box
        ? [.. box.EnumerateArray().Select(n => n.GetDouble())] : null;

    private static bool Within(double[]? inner, double[]? outer) => inner is null || outer is null
        || (inner[0] >= outer[0] && inner[1] >= outer[1] && inner[2] <= outer[2] && inner[3] <= outer[3]);

    [GeneratedRegex(@"^u:D:\d{14}[+-]\d\d'\d\d'?$")]
    private static partial Regex Moment();

    [GeneratedRegex(@"\((?:\\.|[^\\)])*\)|<[0-9A-Fa-f]*>")]
    private static partial Regex ShownText();

    [GeneratedRegex(@"[\d.]+\s+[\d.]+\s+[\d.]+\s+(rg|RG)\b|/DeviceRGB")]
    private static partial Regex DeviceRgb();
}
