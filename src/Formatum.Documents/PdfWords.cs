using System.Collections.Immutable;
using System.Text;
using Formatum.Core.Comparing;
using Formatum.Core.Geometry;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;

namespace Formatum.Documents;

/// <summary>Makes words of the letters of a page, in the order in which they are set.</summary>
internal static class PdfWords
{
    /// <summary>A letter so far from the one before, in sizes, begins another word; so far above or below, it stands on another line.</summary>
    private const double Apart = 0.2, Above = 0.3;

    private const string Hyphens = "-\u00ad\u2010";

    public static ImmutableArray<PlacedWord> Of(IReadOnlyList<Letter> letters, Func<PdfRectangle, Box> shown)
    {
        var words = ImmutableArray.CreateBuilder<PlacedWord>();
        var text = new StringBuilder();
        Box box = default;
        Letter? last = null;
        bool goesOn = false, parted = false;
        void End()
        {
            if (text.Length > 0) words.Add(new(text.ToString(), box));
            text.Clear();
            parted = false;
        }
        foreach (var letter in letters)
        {
            if (words.Count == PdfPages.MostWords) break;
            bool blank = string.IsNullOrWhiteSpace(letter.Value);
            if (blank && goesOn) continue;
            if (last is not null && !blank && IsBroken(text, last, letter))
            {
                text.Length--;
                parted = true;
            }
            else if (blank || (last is not null && IsApart(last, letter))) End();
            goesOn = text.Length > 0 && Hyphens.Contains(text[^1]);
            if (blank)
            {
                last = null;
                continue;
            }
            var at = shown(letter.BoundingBox);
            // The second part of a word that is parted at the end of a line stands elsewhere: it is known by its first.
            box = text.Length == 0 ? at : parted ? box : box.Union(at);
            text.Append(letter.Value);
            last = letter;
        }
        End();
        return words.DrainToImmutable();
    }

    private static bool IsOtherLine(Letter last, Letter letter) =>
        Math.Abs(Along(last, letter).Up) > Above * Math.Max(last.PointSize, letter.PointSize);

    private static bool IsApart(Letter last, Letter letter)
    {
        var (on, up) = Along(last, letter);
        double size = Math.Max(last.PointSize, letter.PointSize);
        return Math.Abs(up) > Above * size || on > Apart * size || on < -size;
    }

    /// <summary>Whether a hyphen parts a word that goes on in small letters on the next line.</summary>
    private static bool IsBroken(StringBuilder text, Letter last, Letter letter) => text.Length > 1 && Hyphens.Contains(text[^1])
        && char.IsLetter(text[^2]) && char.IsLower(letter.Value[0]) && IsOtherLine(last, letter);

    /// <summary>From the end of a letter to the beginning of another, along the line of the first and across it, in points.</summary>
    private static (double On, double Up) Along(Letter last, Letter letter)
    {
        double dx = letter.StartBaseLine.X - last.EndBaseLine.X, dy = letter.StartBaseLine.Y - last.EndBaseLine.Y;
        double lx = last.EndBaseLine.X - last.StartBaseLine.X, ly = last.EndBaseLine.Y - last.StartBaseLine.Y, length = Math.Sqrt(lx * lx + ly * ly);
        return length == 0 ? (dx, dy) : ((dx * lx + dy * ly) / length, (dy * lx - dx * ly) / length);
    }
}
