using Formatum.Core.Colours;

namespace Formatum.Core.Publications;

/// <summary>The press that a publication is made for, by the ICC profile its printer gave.</summary>
/// <param name="ContentHash">SHA-256 of the profile, lower-case hexadecimal.</param>
/// <param name="Name">What it calls itself.</param>
public sealed record PressProfile(string ContentHash, string Name)
{
    /// <summary>How its inks look (<see cref="InkTable"/>), in base 64; null shows them as four inks in general.</summary>
    public string? Table { get; init; }

    public const int LongestName = 300;

    public bool IsPossible => ContentHash.Length == 64 && ContentHash.All(char.IsAsciiHexDigitLower) && Name.Length is > 0 and <= LongestName
        && !Name.Any(char.IsControl) && (Table is null || InkTable.IsTable(Table));
}
