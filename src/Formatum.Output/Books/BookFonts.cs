using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Stories;
using Formatum.Output.Fonts;

namespace Formatum.Output.Books;

/// <summary>The faces of a book, each with the characters that are shown of it.</summary>
internal sealed class BookFonts
{
    public const string StyleSheet = "fonts.css";

    private readonly Dictionary<(string Name, bool Bold, bool Italic), (TextStyle Style, SortedSet<int> Characters)> _faces = [];

    /// <summary>Takes in what a page shows.</summary>
    public void Take(IEnumerable<SceneFrame> frames)
    {
        foreach (var run in frames.SelectMany(f => f.Text?.Lines ?? []).SelectMany(l => l.Runs))
        {
            if (Typefaces.All.IsDrawnAsShapes(run.Style)) continue;
            var key = (SvgWriter.FontName(run.Style), run.Style.Bold, run.Style.Italic);
            if (!_faces.TryGetValue(key, out var face)) face = _faces[key] = (run.Style, []);
            face.Characters.UnionWith(run.Text.EnumerateRunes().Select(r => r.Value));
        }
    }

    /// <summary>Writes the faces, and the style sheet that makes them known.</summary>
    public void Write(BookFile book)
    {
        var css = new StringBuilder("html,body{margin:0;padding:0}\nsvg{display:block}\n");
        int number = 0;
        foreach (var (style, characters) in _faces.Values)
        {
            byte[] program = FontSubset.ForCharacters(Typefaces.All.FileOf(style), characters);
            bool isCff = Sfnt.Read(program).Find("CFF ") is not null;
            string path = FormattableString.Invariant($"fonts/{++number}.{(isCff ? "otf" : "ttf")}");
            book.Add(path, isCff ? "font/otf" : "font/ttf", program);
            css.Append(SvgWriter.FontFace(style, path)).Append('\n');
        }
        book.Add(StyleSheet, "text/css", css.ToString());
    }
}
