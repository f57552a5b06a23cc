using System.Collections.Immutable;
using System.Globalization;

namespace Formatum.Core.Typesetting;

/// <summary>A property of Unicode, from a table that is built in: a range of code points and its value a line, in ascending order.</summary>
/// <typeparam name="T">The property's values, by their names in the table.</typeparam>
internal sealed class CodePointTable<T> where T : struct, Enum
{
    private readonly ImmutableArray<(int First, int Last, T Value)> _ranges;
    private readonly T _otherwise;

    /// <summary>Those of most of the text that is set, up to the punctuation of all scripts, without a search.</summary>
    private readonly T[] _first = new T[0x2100];

    /// <summary>The fields of lines that hold more than a range and its value, in the order of the table.</summary>
    public ImmutableArray<string[]> Further { get; }

    /// <param name="name">The table's name.</param>
    /// <param name="otherwise">The value of what is not listed.</param>
    public CodePointTable(string name, T otherwise)
    {
        _otherwise = otherwise;
        using var stream = typeof(CodePointTable<T>).Assembly.GetManifestResourceStream(name)!;
        using var reader = new StreamReader(stream);
        var ranges = ImmutableArray.CreateBuilder<(int, int, T)>();
        var further = ImmutableArray.CreateBuilder<string[]>();
        while (reader.ReadLine() is { } line)
        {
            if (line.StartsWith('#')) continue;
            string[] fields = line.Split(' '), ends = fields[0].Split("..");
            if (fields.Length > 2) further.Add(fields);
            else ranges.Add((Hex(ends[0]), Hex(ends[^1]), Enum.Parse<T>(fields[1])));
        }
        (_ranges, Further) = (ranges.ToImmutable(), further.ToImmutable());
        for (int i = 0; i < _first.Length; i++) _first[i] = Searched(i);
    }

    public T Of(int codePoint) => codePoint < _first.Length ? _first[codePoint] : Searched(codePoint);

    private T Searched(int codePoint)
    {
        int low = 0, high = _ranges.Length - 1;
        while (low <= high)
        {
            int middle = (low + high) / 2;
            var (first, last, found) = _ranges[middle];
            if (codePoint < first) high = middle - 1;
            else if (codePoint > last) low = middle + 1;
            else return found;
        }
        return _otherwise;
    }

    public static int Hex(string text) => int.Parse(text, NumberStyles.HexNumber, CultureInfo.InvariantCulture);
}
