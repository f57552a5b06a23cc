namespace Formatum.Storage;

/// <summary>Whoever makes edits: a person at a browser, or a program.</summary>
/// <param name="Id">Stays the same from visit to visit.</param>
/// <param name="Name">What others are told.</param>
/// <param name="Window">The window the work is done in; empty for programs. What one window does is no surprise to itself.</param>
public sealed record Maker(string Id, string Name, string Window = "")
{
    public const int LongestName = 60;

    /// <summary>What is done through the automation interface by whoever gives no name.</summary>
    public static readonly Maker Program = new("program", "a program");

    /// <summary>What the server does by itself.</summary>
    public static readonly Maker Server = new("server", "Formatum");

    internal bool IsSameWindow(Maker? other) => Window.Length > 0 && other is not null && other.Id == Id && other.Window == Window;
}

/// <summary>Edits that belong together, such as those of one import: they are undone as one.</summary>
/// <param name="Id">Tells batches apart.</param>
/// <param name="Touched">What all of them together were done to so far, in words.</param>
public sealed record EditBatch(string Id, string Touched);

/// <summary>What the maker of an edit had seen when this piece of work was begun: a drag, a text opened, a form.</summary>
/// <param name="By">Who makes it.</param>
/// <param name="Revision">The publication's revision at that moment; null for an edit that is meant whatever is there now.</param>
public sealed record Seen(Maker By, long? Revision)
{
    /// <summary>Names this very edit, so that one sent again after a line broke is made once; empty where it is not sent again.</summary>
    public string Key { get; init; } = "";

    public static Seen At(long revision, Maker by) => new(by, revision);

    /// <summary>For a program that means what is there now, whatever it is.</summary>
    public static Seen Now(Maker by) => new(by, null);
}
