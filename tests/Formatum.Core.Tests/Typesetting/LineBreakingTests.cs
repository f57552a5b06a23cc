using System.Globalization;
using System.Text;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Tests.Typesetting;

/// <summary>Against the test file that Unicode publishes with its line breaking algorithm, as Debian's package unicode-data carries it.</summary>
public sealed class LineBreakingTests
{
    private const string File = "/usr/share/unicode/auxiliary/LineBreakTest.txt";

    [Fact]
    public void Lines_may_end_where_Unicodes_own_test_says()
    {
        var wrong = new List<string>();
        int cases = 0;
        foreach (string line in System.IO.File.ReadLines(File))
        {
            string test = line.Split('#')[0].Trim();
            if (test.Length == 0) continue;
            cases++;
            var text = new StringBuilder();
            var expected = new List<(int At, bool Allowed)>();
            foreach (string word in test.Split([' ', '\t'], StringSplitOptions.RemoveEmptyEntries))
            {
                if (word is "\u00f7" or "\u00d7") expected.Add((text.Length, word == "\u00f7"));
                else text.Append(char.ConvertFromUtf32(int.Parse(word, NumberStyles.HexNumber, CultureInfo.InvariantCulture)));
            }
            var breaks = LineBreaking.In(text.ToString());
            if (!expected.All(e => e.Allowed == (breaks[e.At] != LineBreak.Prohibited))) wrong.Add(line);
        }
        cases.ShouldBeGreaterThan(7000);
        wrong.ShouldBeEmpty();
    }

    [Fact]
    public void A_line_must_end_where_the_text_says_so()
    {
        var breaks = LineBreaking.In("ab\u2028c d");
        breaks.ShouldBe([LineBreak.Prohibited, LineBreak.Prohibited, LineBreak.Prohibited, LineBreak.Required, LineBreak.Prohibited, LineBreak.Allowed,
            LineBreak.Required]);
        LineBreaking.In("").ShouldBe([LineBreak.Prohibited]);
    }
}
