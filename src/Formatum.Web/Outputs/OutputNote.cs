using System.Collections.Immutable;
using Formatum.Core.Publications;
using Formatum.Output.Tickets;
using Formatum.Storage;

namespace Formatum.Web.Outputs;

/// <summary>How far an output is.</summary>
public enum OutputState { Waiting, Making, Done, Failed, Stopped }

/// <summary>An output: asked for, under way, or made. It is kept beside its file.</summary>
public sealed record OutputNote
{
    public required string Id { get; init; }
    public required int PublicationId { get; init; }

    /// <summary>The revision it is made of.</summary>
    public required long Revision { get; init; }

    /// <summary>The recipe as it was then.</summary>
    public required Recipe Recipe { get; init; }

    public required Maker Maker { get; init; }
    public required DateTimeOffset Begun { get; init; }
    public DateTimeOffset? Ended { get; init; }
    public OutputState State { get; init; }

    /// <summary>Why it was not made, and what to do.</summary>
    public string? Error { get; init; }

    /// <summary>What its file is called.</summary>
    public required string FileName { get; init; }

    public long Bytes { get; init; }

    /// <summary>How many sheets it comes to, and how many are made.</summary>
    public required int Sheets { get; init; }
    public int Made { get; init; }

    /// <summary>What was open on its pages when it was made, in words; null where there is no report.</summary>
    public string? Findings { get; init; }

    /// <summary>Whether its report is under way.</summary>
    public bool IsReporting { get; init; }

    /// <summary>What a ticket says of it; null where it was made before there were any.</summary>
    public PrintProduct? Product { get; init; }

    /// <summary>To whom it was handed over, the newest first.</summary>
    public ImmutableArray<Handover> Handovers { get; init => field = value.IsDefault ? [] : value; } = [];

    public bool IsBusy => IsUnderWay || IsReporting || Handovers.Any(h => h.State == HandoverState.Sending);

    public bool IsUnderWay => State is OutputState.Waiting or OutputState.Making;
}
