using System.Text.RegularExpressions;

namespace Formatum.Core.Typesetting;

/// <summary>Addresses of pages and of mail in a text: they are divided without a hyphen, which would be read as part of them, and lead on where a file
/// can.</summary>
public static partial class Addresses
{
    /// <param name="text">The text of a paragraph, or of some of its lines.</param>
    /// <returns>Where each begins and ends, in UTF-16 units, without the marks of a sentence behind it.</returns>
    public static IEnumerable<(int From, int To)> In(string text)
    {
        if (!text.Contains("www.", StringComparison.Ordinal) && text.IndexOf('@', StringComparison.Ordinal) < 0
            && !text.Contains("://", StringComparison.Ordinal)) yield break;
        foreach (Match match in Address().Matches(text))
            yield return (match.Index, match.Index + match.Value.TrimEnd('.', ',', ';', ':', '!', '?', ')').Length);
    }

    [GeneratedRegex(@"https?://[^\s<>\u201c\u201d""]+|www\.[^\s<>\u201c\u201d""]+\.[^\s<>\u201c\u201d""]+|[\w.+-]+@[\w-]+\.[\w.-]+")]
    private static partial Regex Address();
}
