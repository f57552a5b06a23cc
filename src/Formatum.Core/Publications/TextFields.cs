using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>A field as it is written in a text: "{page}", "{heading 2}".</summary>
/// <param name="Name">What it asks for, in lower case, without its braces.</param>
/// <param name="Level">The number behind the name; null where there is none.</param>
public readonly record struct TextField(string Name, int? Level);

/// <summary>What a text says differently on each page: written in braces where it is typed, and put in where it is shown or printed.</summary>
public static partial class TextFields
{
    /// <summary>The number the page bears, how many pages there are, the edition, and the publication's name.</summary>
    public const string Page = "page", Pages = "pages", Edition = "edition", Publication = "publication";

    /// <summary>The last heading up to the page, the list of all headings, and the pages a story goes on to and came from.</summary>
    public const string Heading = "heading", Contents = "contents", Next = "next", Before = "before";

    /// <summary>The names of all fields.</summary>
    public static readonly ImmutableArray<string> Names = [Page, Pages, Edition, Publication, Heading, Contents, Next, Before];

    [GeneratedRegex(@"\{(page|pages|edition|publication|heading|contents|next|before)(?: ([1-6]))?\}", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Written();

    /// <summary>Whether the text says something different on each page, or in each edition.</summary>
    public static bool HasFields(this FrameText text) => text.Paragraphs.Any(p => HasFields(p.Text));

    private static bool HasFields(string text) => text.Contains('{', StringComparison.Ordinal) && Written().IsMatch(text);

    /// <summary>Whether a name in braces would be a field.</summary>
    public static bool IsField(string name) => Written().Match($"{{{name.Trim()}}}") is { Success: true, Index: 0 };

    /// <summary>Whether what it says follows from where texts stand, its own or others.</summary>
    public static bool FollowsOthers(this FrameText text) => text.Paragraphs.Any(p => HasFields(p.Text)
        && Written().Matches(p.Text).Any(m => Of(m).Name is Heading or Contents or Next or Before));

    private static TextField Of(Match match) => new(match.Groups[1].Value.ToLowerInvariant(),
        match.Groups[2].Success ? int.Parse(match.Groups[2].ValueSpan, CultureInfo.InvariantCulture) : null);

    /// <summary>The field that a paragraph consists of; null where it holds anything else.</summary>
    public static TextField? Alone(Paragraph paragraph) =>
        paragraph.Text.StartsWith('{') && Written().Match(paragraph.Text) is { Success: true } match && match.Length == paragraph.Text.TrimEnd().Length
            ? Of(match) : null;

    /// <summary>The text with its fields filled in.</summary>
    /// <param name="text">The text as typed.</param>
    /// <param name="words">What a field comes to in a paragraph, by that one's place from 0; null leaves it as it is written.</param>
    public static FrameText Filled(this FrameText text, Func<int, TextField, string?> words) => !text.HasFields() ? text
        : new([.. text.Paragraphs.Select((p, i) => !HasFields(p.Text) ? p
            : p with { Runs = [.. p.Runs.Select(r => r with { Text = Written().Replace(r.Text, m => words(i, Of(m)) ?? m.Value) })] })]);
}
