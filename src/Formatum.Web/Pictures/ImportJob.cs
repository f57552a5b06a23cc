using System.Text.Json.Serialization;
using Formatum.Storage;

namespace Formatum.Web.Pictures;

/// <summary>A file that is brought in, and what became of it.</summary>
public sealed class ImportItem
{
    /// <summary>What people call it.</summary>
    public required string Name { get; init; }

    /// <summary>Where it lies: what was sent, until it is read; what is linked where it is, for good.</summary>
    public required string Path { get; init; }

    /// <summary>Whether it was sent, and is kept by this program.</summary>
    public required bool Sent { get; init; }

    /// <summary>The image it became; null where it did not, or not yet.</summary>
    public int? ImageId { get; set; }

    /// <summary>Why it did not come in.</summary>
    public string? Error { get; set; }

    /// <summary>The name under which the same content was there already.</summary>
    public string? SameAs { get; set; }

    /// <summary>Whether it was read, be it well or ill: it comes in with the next others.</summary>
    [JsonIgnore]
    public bool IsRead { get; set; }

    [JsonIgnore]
    public bool IsDone => ImageId is not null || Error is not null;
}

public enum ImportState
{
    /// <summary>Files are still arriving, and are read as they do.</summary>
    Receiving,
    /// <summary>All that was sent is here; the rest is being read.</summary>
    Reading,
    /// <summary>Nothing more is done.</summary>
    Done,
    /// <summary>Somebody stopped it; what had been read came in.</summary>
    Stopped,
}

/// <summary>Pictures that are brought in together. It is kept on the disk, so that a server that starts again goes on with it.</summary>
public sealed class ImportJob
{
    public required string Id { get; init; }
    public required int PublicationId { get; init; }
    public required DateTimeOffset Begun { get; init; }

    /// <summary>Who brings them in.</summary>
    public Maker Maker { get; init; } = Maker.Program;

    public ImportState State { get; set; }

    /// <summary>Whether it went on after the server had stopped.</summary>
    public bool Resumed { get; set; }

    /// <summary>The names of all files that are to come, as the sender told them; fewer may arrive.</summary>
    public List<string> Expected { get; set; } = [];

    /// <summary>The names of those that came wholly.</summary>
    public List<string> Came { get; init; } = [];

    /// <summary>Whether somebody has read its report since it ended.</summary>
    public bool Read { get; set; }

    public List<ImportItem> Items { get; init; } = [];
}

/// <summary>How far a job is.</summary>
/// <param name="Total">How many files there are, or are to come.</param>
/// <param name="Read">Whether somebody has read its report.</param>
/// <param name="SecondsLeft">An estimate from how long it took so far; null while too little is known.</param>
public sealed record ImportStatus(string Id, ImportState State, bool Resumed, int Total, int Done, int CameIn, int Same, double? SecondsLeft, bool Read,
    ImportReport[] Report);

/// <summary>A file that did not come in and why, or one that was there already; of a job that is done, also those that came in.</summary>
public sealed record ImportReport(string Name, int? Id, string? Error, string? SameAs);
