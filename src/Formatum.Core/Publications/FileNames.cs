using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Formatum.Core.Checks;

namespace Formatum.Core.Publications;

/// <summary>What the files of outputs are called, by a pattern with words in braces.</summary>
public static class FileNames
{
    public const string Usual = "{publication} {edition}";

    public const int LongestPattern = 200, LongestName = 150;

    /// <summary>The words there are, and what each stands for.</summary>
    public static readonly ImmutableArray<(string Word, string Means)> Words =
    [
        ("publication", "its name"), ("edition", "its edition"), ("recipe", "the recipe's name"), ("pages", "which pages are in it"),
        ("page", "the page's number, where there is a file of each"), ("date", "the day, as 2026-05-31"),
    ];

    public static void Check(string pattern, FieldErrors errors)
    {
        const string Field = "filePattern";
        if (pattern.Length is 0 or > LongestPattern) errors.Add(Field, $"A pattern has from 1 to {LongestPattern} characters; \"{Usual}\" is usual.");
        else if (pattern.IndexOfAny(['/', '\\']) >= 0)
            errors.Add(Field, "A file's name has no / or \\ in it: outputs all lie in one place. Take - in their place.");
        else if (pattern.Any(char.IsControl)) errors.Add(Field, "A file's name has no line ends, tabs or other controls. Type it anew.");
        else if (Unknown(pattern) is { } unknown)
            errors.Add(Field, $"\u201c{unknown}\u201d is no word that is filled in. There are {string.Join(", ", Words.Select(w => $"{{{w.Word}}}"))}.");
    }

    private static string? Unknown(string pattern)
    {
        foreach (string piece in pattern.Split('{').Skip(1))
        {
            int end = piece.IndexOf('}', StringComparison.Ordinal);
            string word = end < 0 ? piece : piece[..end];
            if (end < 0 || Words.All(w => w.Word != word)) return "{" + word + (end < 0 ? "" : "}");
        }
        return null;
    }

    /// <summary>A file's name, without its ending.</summary>
    /// <param name="pattern">The pattern.</param>
    /// <param name="setup">The publication's.</param>
    /// <param name="recipe">The recipe's name.</param>
    /// <param name="pages">Which pages are in it, as they are written; empty for all.</param>
    /// <param name="page">The number of the page it is of; empty where it is of several.</param>
    /// <param name="day">When it is made.</param>
    public static string Of(string pattern, Setup setup, string recipe, string pages, string page, DateTimeOffset day)
    {
        var filled = new StringBuilder(pattern);
        foreach (var (word, value) in new[]
                 {
                     ("publication", setup.Name), ("edition", setup.Edition), ("recipe", recipe), ("pages", pages.Length > 0 ? pages : "all"), ("page", page),
                     ("date", day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)),
                 })
            filled.Replace("{" + word + "}", Plain(value));
        string name = string.Join(' ', Plain(filled.ToString()).Split(' ', StringSplitOptions.RemoveEmptyEntries)).Trim(' ', '-', '_', '.');
        if (name.Length > LongestName) name = name[..LongestName].Trim();
        return name.Length > 0 ? name : "output";
    }

    /// <summary>Without anything that some file system would not take.</summary>
    private static string Plain(string text) =>
        new([.. text.Select(c => char.IsLetterOrDigit(c) || c is ' ' or '-' or '_' or '.' or ',' or '{' or '}' ? c : '-')]);
}
