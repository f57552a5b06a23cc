using Formatum.Storage;

namespace Formatum.Web.Desk.Commands;

/// <summary>A step through what was done before. The Desk goes where it changes something; in an open text, which is kept, the caret does.</summary>
public abstract record Step : DeskCommand
{
    public override bool GoesThere => Keep is null;
}

public sealed record Undo : Step
{
    public override Task<EditOutcome> DoAsync(Hand hand) => hand.Store.UndoAsync(hand.PublicationId, hand.Seen);
}

public sealed record Redo : Step
{
    public override Task<EditOutcome> DoAsync(Hand hand) => hand.Store.RedoAsync(hand.PublicationId, hand.Seen);
}

/// <summary>One step, whoever's it was.</summary>
public sealed record TakeBack : Step
{
    /// <summary>Which, by its number in the history.</summary>
    public int Count { get; init; }

    public override Task<EditOutcome> DoAsync(Hand hand) => hand.Store.TakeBackAsync(hand.PublicationId, Count, hand.Seen);
}

/// <summary>Everything up to a step.</summary>
public sealed record GoTo : Step
{
    /// <summary>The step after which all is to be as it was, by its number in the history.</summary>
    public int Count { get; init; }

    /// <summary>That it also takes back what others did was told, and is wanted.</summary>
    public bool Sure { get; init; }

    public override Task<EditOutcome> DoAsync(Hand hand) => hand.Store.GoToAsync(hand.PublicationId, Count, hand.Seen, Sure);
}
