using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Desk.Commands;

/// <summary>Frames are taken away, and can be pasted as they were.</summary>
public sealed record Cut : DeskCommand
{
    /// <summary>Under this name the server keeps them.</summary>
    public string? Token { get; init; }

    public override async Task<EditOutcome> DoAsync(Hand hand)
    {
        hand.Copied.Keep(Token, (await hand.StandingAsync()).Publication);
        return await hand.EditAsync(new RemoveFrames(FrameIds));
    }
}

/// <summary>Something of what was copied, in this publication or another, is put here.</summary>
public abstract record PasteCommand : DeskCommand
{
    /// <summary>Under this name the server keeps what was copied.</summary>
    public string? Token { get; init; }

    public int? FromPublication { get; init; }

    /// <summary>Ids of the frames that were copied, with commas between.</summary>
    public string? Copied { get; init; }

    protected ImmutableArray<int> CopiedIds => [.. DeskView.Ids(Copied)];

    protected abstract Edit ToEdit(Ground ground, Publication source, bool isSame);

    public override async Task<EditOutcome> DoAsync(Hand hand)
    {
        if (FromPublication is not { } from) throw new EditRefused("frame", "Nothing was copied. Copy some frames first.");
        var source = hand.Copied.Find(Token) ?? (await hand.StandingAsync(from)).Publication;
        return await hand.EditAsync(ToEdit(await hand.GroundAsync(), source, from == hand.PublicationId));
    }

    /// <summary>The frame whose ways are taken on.</summary>
    /// <exception cref="EditRefused">None of what was copied is there.</exception>
    protected Frame Like(Publication source) => CopiedIds.Select(source.Frames.GetValueOrDefault).FirstOrDefault(f => f is not null) ??
        throw new EditRefused("frame", "What was copied is no longer there. Copy it again.");
}

public sealed record Paste : PasteCommand
{
    /// <summary>Whether they go where they were, rather than to the pointer.</summary>
    public bool InPlace { get; init; }

    public double ToX { get; init; }
    public double ToY { get; init; }

    protected override Edit ToEdit(Ground ground, Publication source, bool isSame) =>
        new PasteFrames(source, CopiedIds, ground.Spread.Index, InPlace ? null : new Vec(ToX, ToY));
}

public sealed record PasteLook : PasteCommand
{
    protected override Edit ToEdit(Ground ground, Publication source, bool isSame) => isSame
        ? new GiveLook(FrameIds, Like(source).Look, Like(source).LookId) : new BringLook(FrameIds, source, Like(source));
}

/// <summary>In another publication, the rule of the same name is meant.</summary>
public sealed record PasteRule : PasteCommand
{
    protected override Edit ToEdit(Ground ground, Publication source, bool isSame)
    {
        var like = Like(source);
        string? name = like.RuleId is { } rule ? source.Rules[rule].Name : null;
        int? here = isSame ? like.RuleId : ground.Publication.Rules.Values.FirstOrDefault(r => string.Equals(r.Name, name,
            StringComparison.OrdinalIgnoreCase))?.Id;
        return new GiveRule(FrameIds, like, here);
    }
}
