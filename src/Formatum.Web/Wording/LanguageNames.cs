using Formatum.Core.Typesetting;

namespace Formatum.Web.Wording;

/// <summary>Languages of text by their names.</summary>
public static class LanguageNames
{
    /// <summary>The languages to choose among, in the order of their names: those by which words can be divided.</summary>
    public static IEnumerable<string> Known =>
        Hyphenation.Languages.Append("en-GB").Distinct().OrderBy(Name, StringComparer.Ordinal);

    /// <summary>The name of a language in English.</summary>
    public static string Name(string language) => language switch
    {
        "en-GB" => "English (British)",
        "en-US" => "English (American)",
        "de" => "German",
        "fr" => "French",
        "es" => "Spanish",
        "it" => "Italian",
        "nl" => "Dutch",
        "pt" => "Portuguese",
        "sv" => "Swedish",
        "da" => "Danish",
        "pl" => "Polish",
        _ => language,
    };
}
