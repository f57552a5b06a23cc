using System.Globalization;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Tests.Typesetting;

/// <summary>Against Unicode's own cases for UAX #9 (BidiCharacterTest.txt of Debian's unicode-data), all of them.</summary>
public sealed class BidiTests
{
    [Fact]
    public void Every_case_of_Unicode_has_its_levels_and_its_order()
    {
        int cases = 0;
        var wrong = new List<string>();
        foreach (string line in File.ReadLines("/usr/share/unicode/BidiCharacterTest.txt"))
        {
            if (line.Length == 0 || line[0] == '#') continue;
            string[] fields = line.Split(';');
            int[] points = [.. fields[0].Split(' ').Select(hex => int.Parse(hex, NumberStyles.HexNumber, CultureInfo.InvariantCulture))];
            var bidi = new Bidi(points, fields[1] switch { "0" => 0, "1" => 1, _ => null });
            cases++;
            int[] levels = bidi.LevelsOfLine(0, points.Length);
            string told = string.Join(' ', levels.Select((level, i) => bidi.IsRemoved(i) ? "x" : level.ToString(CultureInfo.InvariantCulture)));
            int[] seen = [.. Enumerable.Range(0, points.Length).Where(i => !bidi.IsRemoved(i))];
            string order = string.Join(' ', Bidi.InOrder([.. seen.Select(i => levels[i])]).Select(i => seen[i]));
            if (bidi.ParagraphLevel.ToString(CultureInfo.InvariantCulture) != fields[2] || told != fields[3]
                || order != fields[4].Trim()) wrong.Add($"{line}\n{told};{order}");
        }
        cases.ShouldBeGreaterThan(90_000);
        wrong.Count.ShouldBe(0, string.Join('\n', wrong.Take(5)));
    }
}
