namespace Formatum.Web.Desk;

/// <summary>The fields that can be put into a text.</summary>
public static class FieldChoice
{
    /// <summary>As each is written, and what it says.</summary>
    public static readonly IReadOnlyList<(string Written, string Words)> All =
    [
        ("{page}", "the page's number"), ("{pages}", "how many pages"), ("{edition}", "the edition"), ("{publication}", "the publication's name"),
        ("{heading}", "the last heading of rank 1"), ("{heading 2}", "the last of rank 2"), ("{contents}", "a list of all headings"),
        ("{contents 1}", "of those of rank 1"), ("{next}", "the page a text goes on to"), ("{before}", "the page it came from"),
    ];
}
