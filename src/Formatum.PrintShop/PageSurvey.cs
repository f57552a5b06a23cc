using System.Numerics;
using UglyToad.PdfPig.Tokens;

namespace Formatum.PrintShop;

/// <summary>What is on a page: fonts, colours, inks and pictures, also within what it shows of others.</summary>
public sealed class PageSurvey
{
    private const int DeepestForms = 12, MostOperators = 3_000_000;

    /// <summary>A picture of so few pixels is a colour that is laid through a mask, such as a shadow.</summary>
    private const int FewPixels = 4;

    /// <summary>Where a font keeps its program, by its kind (9.9).</summary>
    private static readonly string[] Programs = ["FontFile", "FontFile2", "FontFile3"];

    private readonly PdfFile _file;
    private int _operators;

    public PageSurvey(PdfFile file, DictionaryToken page)
    {
        _file = file;
        Read(file.ContentOf(page), file.DictionaryOf(page, "Resources"), Matrix3x2.Identity, 0);
    }

    /// <summary>Fonts that are not in the file, by name.</summary>
    public SortedSet<string> LooseFonts { get; } = new(StringComparer.Ordinal);

    /// <summary>Inks besides the four, by name.</summary>
    public SortedSet<string> Spots { get; } = new(StringComparer.Ordinal);

    /// <summary>Whether something is given as light that nobody says the colour of.</summary>
    public bool HasDeviceRgb { get; private set; }

    /// <summary>How many showings of pictures are light with a profile.</summary>
    public int RgbPictures { get; private set; }

    /// <summary>The lowest effective resolution of a picture, in ppi.</summary>
    public double LowestPpi { get; private set; } = double.PositiveInfinity;

    private void Read(ReadOnlyMemory<byte> content, DictionaryToken? resources, Matrix3x2 map, int deep)
    {
        Resources(resources);
        var kept = new Stack<Matrix3x2>();
        foreach (var (op, numbers, names) in ContentOperators.Of(content))
        {
            if (++_operators > MostOperators) throw new BadJob("A page has more operators than any press could follow. Send a simpler file.");
            switch (op)
            {
                case "q": kept.Push(map); break;
                case "Q": map = kept.TryPop(out var before) ? before : map; break;
                case "cm" when numbers.Count == 6: map = MatrixOf([.. numbers]) * map; break;
                case "rg" or "RG": HasDeviceRgb = true; break;
                case "cs" or "CS" when names.Count == 1 && names[0] == "DeviceRGB": HasDeviceRgb = true; break;
                case "Do" when names.Count == 1: Show(_file.Get<StreamToken>(_file.DictionaryOf(resources, "XObject"), names[0]), resources, map, deep); break;
            }
        }
    }

    private void Show(StreamToken? shown, DictionaryToken? resources, Matrix3x2 map, int deep)
    {
        if (shown is null) return;
        var about = shown.StreamDictionary;
        if (_file.NameOf(about, "Subtype") == "Form")
        {
            if (deep == DeepestForms) throw new BadJob("Parts of a page stand within each other deeper than any press could follow. Send a simpler file.");
            var own = _file.NumbersOf(about, "Matrix") is { Length: 6 } matrix ? MatrixOf(matrix) : Matrix3x2.Identity;
            Read(_file.Decoded(shown), _file.DictionaryOf(about, "Resources") ?? resources, own * map, deep + 1);
            return;
        }
        double width = _file.NumberOf(about, "Width"), height = _file.NumberOf(about, "Height");
        if (_file.Get<BooleanToken>(about, "ImageMask") is { Data: true } || width * height <= FewPixels) return;
        double across = Math.Sqrt(map.M11 * map.M11 + map.M12 * map.M12) / 72, down = Math.Sqrt(map.M21 * map.M21 + map.M22 * map.M22) / 72;
        if (across > 0 && down > 0) LowestPpi = Math.Min(LowestPpi, Math.Min(width / across, height / down));
        switch (Space(about.TryGet(NameToken.Create("ColorSpace"), out var space) ? space : null))
        {
            case "DeviceRGB": HasDeviceRgb = true; break;
            case "ICCBased3" or "CalRGB" or "Lab": RgbPictures++; break;
        }
    }

    private static Matrix3x2 MatrixOf(double[] m) => new((float)m[0], (float)m[1], (float)m[2], (float)m[3], (float)m[4], (float)m[5]);

    private void Resources(DictionaryToken? resources)
    {
        foreach (var font in Values(_file.DictionaryOf(resources, "Font"))) Font(font as DictionaryToken);
        foreach (var space in Values(_file.DictionaryOf(resources, "ColorSpace"))) Space(space);
    }

    private IEnumerable<IToken?> Values(DictionaryToken? dictionary) => dictionary?.Data.Values.Select(_file.Direct) ?? [];

    private void Font(DictionaryToken? font)
    {
        if (font is null || _file.NameOf(font, "Subtype") == "Type3") return;
        var described = _file.Get<ArrayToken>(font, "DescendantFonts") is { } descendants ? _file.Direct(descendants.Data[0]) as DictionaryToken : font;
        var descriptor = _file.DictionaryOf(described, "FontDescriptor");
        if (Programs.All(key => _file.DictionaryOf(descriptor, key) is null))
            LooseFonts.Add(_file.NameOf(font, "BaseFont") ?? "a font without a name");
    }

    /// <summary>Of which kind a colour space is; what inks it has is noted.</summary>
    private string Space(IToken? token)
    {
        if (_file.Direct(token) is NameToken name) return name.Data;
        if (_file.Direct(token) is not ArrayToken { Length: > 0 } array || _file.Direct(array.Data[0]) is not NameToken family) return "";
        switch (family.Data)
        {
            case "Separation":
                if (_file.Direct(array.Data[1]) is NameToken { Data: not ("All" or "None") } ink) Spots.Add(ink.Data);
                return "Separation";
            case "DeviceN":
                foreach (var part in (_file.Direct(array.Data[1]) as ArrayToken)?.Data.Select(_file.Direct).OfType<NameToken>() ?? [])
                    if (part.Data is not ("Cyan" or "Magenta" or "Yellow" or "Black" or "None")) Spots.Add(part.Data);
                return "DeviceN";
            case "Indexed":
                return Space(array.Data[1]);
            case "ICCBased":
                return "ICCBased" + (_file.Direct(array.Data[1]) is StreamToken profile ? _file.NumberOf(profile.StreamDictionary, "N") : 0);
            default:
                return family.Data;
        }
    }
}
