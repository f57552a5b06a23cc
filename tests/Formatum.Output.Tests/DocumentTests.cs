using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Documents;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>Words of documents, held against what pandoc reads of the same files; and files that are none, or hostile.</summary>
public sealed partial class DocumentTests : IDisposable
{
    private readonly TempFolder _folder = new();

    public void Dispose() => _folder.Dispose();

    private const string Sample = """
        # The wood is in

        Nine cords of *split ash* came up the lane, **and** the kiln is ~~cold~~ warm again: see [the list](https://example.invalid/).
        Two lines in the file are one paragraph.

        ## Packing

        - Plates to the back
        - Jars to the *front*
            - with wads of sand
        - Bowls between

        1. Bring gloves
        2. Bring a hat

        > Nobody promises anything about the bowls.

        | Glaze   | Top heat | Price |
        |---------|---------:|------:|
        | Celadon | 1284     | 14.00 |
        | Tenmoku | 1291     | 38.00 |

        The last, with H`code`, “quotes”, an em dash — and Wölfe.
        """;

    private static string Plain(BroughtDocument document) => string.Join('\n', document.Paragraphs.Select(p => string.Concat(p.Runs.Select(r => r.Text))));

    /// <summary>The words alone: marks of lists and rules of tables are drawn by each program in its own way.</summary>
    private static string[] Words(string text) => [.. Word().Matches(Mark().Replace(text, "")).Select(m => m.Value)];

    [GeneratedRegex(@"[\p{L}\p{N}]+([.'\u2019][\p{L}\p{N}]+)*")]
    private static partial Regex Word();

    [GeneratedRegex(@"^\s*(\d+\.|-|>)\s+", RegexOptions.Multiline)]
    private static partial Regex Mark();

    private BroughtDocument Read(string name, byte[] bytes)
    {
        File.WriteAllBytes(_folder[name], bytes);
        return DocumentReader.Read(name, bytes);
    }

    [Theory]
    [InlineData("sample.md")]
    [InlineData("sample.docx")]
    [InlineData("sample.html")]
    public void The_words_are_those_that_pandoc_reads(string name)
    {
        File.WriteAllText(_folder["sample.md"], Sample);
        if (name != "sample.md") Tool.Run("pandoc", "-f", "markdown", "-s", "--metadata=title:T", "-o", _folder[name], _folder["sample.md"]);
        string theirs = Tool.Run("pandoc", _folder[name], "-t", "plain", "--wrap=none");
        var read = DocumentReader.Read(name, File.ReadAllBytes(_folder[name]));
        // The title of a page of its own stands in its body too.
        string[] ours = [.. Words(Plain(read)).SkipWhile(w => w == "T")];
        ours.ShouldBe(Words(theirs).SkipWhile(w => w == "T").ToArray());
        read.Paragraphs.Where(p => p.Style?.StartsWith("Heading", StringComparison.Ordinal) == true).Select(p => (p.Style, p.Runs[0].Text))
            .Where(h => h.Text != "T").ShouldBe([("Heading 1", "The wood is in"), ("Heading 2", "Packing")]);
        TextSettings Of(string words) => read.Paragraphs.SelectMany(p => p.Runs).First(r => r.Text.Contains(words, StringComparison.Ordinal)).Set;
        Of("split ash").Italic.ShouldBe(true);
        Of("and").Bold.ShouldBe(true);
        Of("cold").StrikeThrough.ShouldBe(true);
        read.Paragraphs.Single(p => p.Runs[0].Text.StartsWith("Plates", StringComparison.Ordinal)).Set.List.ShouldBe(ListKind.Bullet);
        read.Paragraphs.Single(p => p.Runs[0].Text == "Bring a hat").Set.List.ShouldBe(ListKind.Number);
        read.Paragraphs.Select(p => string.Concat(p.Runs.Select(r => r.Text))).ShouldContain("Celadon\t1284\t14.00");
    }

    [Fact]
    public void What_does_not_come_along_is_told()
    {
        var read = Read("a.html", "<p>One<img src=x> two<script>alert(1)</script><iframe src=x></iframe><img src=y><p onclick=x()>three"u8.ToArray());
        Plain(read).ShouldBe("One two\nthree");
        read.LeftAside.ShouldBe(["a picture, 2 times", "an embedded page"]);
    }

    [Fact]
    public void Plain_text_is_read_by_its_lines_in_whatever_it_is_encoded()
    {
        Plain(Read("a.txt", Encoding.UTF8.GetBytes("one\r\ntwo\n\n"))).ShouldBe("one\ntwo");
        Plain(Read("a.txt", [.. "Price: 12 "u8, 0x80])).ShouldBe("Price: 12 \u20ac");
        string broken = string.Join('\n', Enumerable.Repeat("A line that somebody broke by hand so that it fits a narrow window", 3));
        Plain(Read("a.txt", Encoding.Unicode.GetPreamble().Concat(Encoding.Unicode.GetBytes(broken + "\n\nnext\n")).ToArray()))
            .ShouldBe(broken.Replace('\n', ' ') + "\nnext");
    }

    private static byte[] Zipped(params (string Name, Action<Stream> Write)[] entries)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, write) in entries)
            {
                using var entry = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
                write(entry);
            }
        }
        return stream.ToArray();
    }

    [Fact]
    public void What_is_no_document_damaged_or_hostile_is_refused_with_its_reason()
    {
        string Refused(string name, byte[] bytes) => Should.Throw<EditRefused>(() => DocumentReader.Read(name, bytes)).Message;
        Refused("a.docx", [1, 2, 3]).ShouldContain("damaged");
        Refused("a.docx", Zipped(("word/document.xml", s => s.Write("<w:document"u8)))).ShouldContain("no text");
        Refused("a.exe", [1]).ShouldContain("no document");
        byte[] blanks = new byte[1 << 20];
        Array.Fill(blanks, (byte)' ');
        Refused("a.docx", Zipped(("word/document.xml", s => { for (int i = 0; i < 250; i++) s.Write(blanks); }))).ShouldContain("MB inside");
        Refused("a.txt", Encoding.ASCII.GetBytes(new string('a', FrameText.LongestText + 1))).ShouldContain("at most");
        // An entity that would grow a thousand times a thousand, and a file of the machine: XML with a document type is not read at all.
        Refused("a.docx", Zipped(("[Content_Types].xml", s => s.Write("<!DOCTYPE x [<!ENTITY a SYSTEM 'file:///etc/passwd'>]><Types>&a;</Types>"u8))))
            .ShouldContain("damaged");
        Refused("a.html", Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat("<div><b>", 20_000)) + "deep")).ShouldContain("nested");
        Refused("a.md", Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat("> ", 3000)) + "deep")).ShouldContain("nested");
        DocumentReader.Read("a.html", Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat("<div>", 600)) + "deep")).Paragraphs.Length.ShouldBe(1);
    }

    [Fact]
    public void A_damaged_document_never_does_more_than_be_refused()
    {
        File.WriteAllText(_folder["sample.md"], Sample);
        Tool.Run("pandoc", "-o", _folder["s.docx"], _folder["sample.md"]);
        byte[] whole = File.ReadAllBytes(_folder["s.docx"]);
        var random = new Random(20_261_126);
        int refused = 0;
        for (int i = 0; i < 200; i++)
        {
            byte[] damaged = [.. whole];
            for (int k = random.Next(1, 8); k > 0; k--) damaged[random.Next(damaged.Length)] = (byte)random.Next(256);
            try
            {
                DocumentReader.Read("s.docx", damaged);
            }
            catch (EditRefused)
            {
                refused++;
            }
        }
        refused.ShouldBeGreaterThan(10);
    }

    [Fact]
    public void Words_go_behind_those_of_a_frame_with_styles_by_name()
    {
        var p = Publication.Create(Workshop.A4(), 1);
        p = Workshop.Do(p, new DefineStyle { Name = "heading 1", Settings = new() { Size = 33 } });
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(50, 50, 300, 300), Text = FrameText.Empty(TextStyle.Usual) });
        int frame = p.Frames.Keys.Single();
        var read = Read("a.md", "# One\n\n## Two\n\nthree"u8.ToArray());
        p = Workshop.Do(p, new BringWords(read.Paragraphs, frame, 1, default, "a.md"));
        p.StoryOf(p.Frames[frame])!.Text.Plain.ShouldBe("One\nTwo\nthree");
        p.Styles.Values.Select(s => s.Name).Order(StringComparer.Ordinal).ShouldBe(["Heading 2", "heading 1"]);
        TextCascade.StyleOf(p, p.StoryOf(p.Frames[frame])!.Text.Paragraphs[0]).Size.ShouldBe(33);
        p = Workshop.Do(p, new BringWords(read.Paragraphs, frame, 1, default, "a.md"));
        p.StoryOf(p.Frames[frame])!.Text.Paragraphs.Length.ShouldBe(6);
        p = Workshop.Do(p, new BringWords(read.Paragraphs, null, 1, new(50, 400, 200, 200), "a.md"));
        p.Frames.Count.ShouldBe(2);
        Should.Throw<EditRefused>(() => new BringWords([], frame, 1, default, "a.md").On(p)).Message.ShouldContain("no words");
    }
}
