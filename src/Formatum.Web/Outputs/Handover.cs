using System.Collections.Immutable;
using Formatum.Output.Tickets;
using Formatum.Storage;

namespace Formatum.Web.Outputs;

/// <summary>What came of a hand-over.</summary>
public enum HandoverState
{
    /// <summary>It is on its way, or waits for an answer.</summary>
    Sending,

    /// <summary>Whoever took it will print it.</summary>
    Accepted,

    /// <summary>Whoever took it will not print it as it is.</summary>
    Refused,

    /// <summary>It lies in a folder, where nobody answers.</summary>
    Laid,

    /// <summary>It was not sent, or no answer came that could be read.</summary>
    Failed,
}

/// <summary>An output that was handed over.</summary>
public sealed record Handover
{
    public required string Id { get; init; }

    /// <summary>The name of where it went.</summary>
    public required string To { get; init; }

    public required TicketWish Wish { get; init; }
    public required Maker Maker { get; init; }
    public required DateTimeOffset Begun { get; init; }
    public DateTimeOffset? Ended { get; init; }
    public HandoverState State { get; init; }

    /// <summary>As it is told where the server ended before an answer came.</summary>
    public Handover Interrupted() => this with
    {
        State = HandoverState.Failed,
        Ended = Begun,
        Reasons = ["The server ended before an answer came. Ask whether it arrived before you send it again."],
    };

    /// <summary>What the job is called there; null where nobody said.</summary>
    public string? Job { get; init; }

    /// <summary>Why it was refused or not sent.</summary>
    public ImmutableArray<string> Reasons { get; init => field = value.IsDefault ? [] : value; } = [];

    /// <summary>What else was said of it.</summary>
    public ImmutableArray<string> Remarks { get; init => field = value.IsDefault ? [] : value; } = [];
}
