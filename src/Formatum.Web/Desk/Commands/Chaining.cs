using Formatum.Core.Checks;
using Formatum.Core.Edits;

namespace Formatum.Web.Desk.Commands;

/// <summary>Text is let run on from a frame.</summary>
public sealed record RunTextOn : Gesture
{
    /// <summary>Into what: a frame by its id, "next" for a like frame on the next page, "pages" for as many new pages as it takes.</summary>
    public string? Into { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var frame = FirstFrame(ground);
        return Into switch
        {
            "next" => new RunOnPages(frame.Id, 1, OnNewPages: false),
            "pages" => ChainView.UntilItEnds(ground.Publication, frame),
            not null when int.TryParse(Into, System.Globalization.CultureInfo.InvariantCulture, out int id) => new RunOn(frame.Id, id),
            _ => throw new EditRefused("into", "Choose a frame for the text to run on into."),
        };
    }
}

/// <summary>A chain is broken behind a frame.</summary>
public sealed record BreakTextChain : Gesture
{
    public override Edit ToEdit(Ground ground) => new BreakChain(FirstFrame(ground).Id);
}
