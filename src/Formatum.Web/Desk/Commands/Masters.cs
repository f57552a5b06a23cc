using Formatum.Core.Checks;
using Formatum.Core.Edits;

namespace Formatum.Web.Desk.Commands;

/// <summary>A page comes to be based on a master, or on none.</summary>
public sealed record BasePage : Gesture
{
    /// <summary>The page by its number; the first of the spread where left out.</summary>
    public int? Page { get; init; }

    public int? Master { get; init; }

    public override Edit ToEdit(Ground ground) => new BasePages([Page ?? ground.Spread.Pages[0].Number], Master);
}

/// <summary>The master that is shown gets another name.</summary>
public sealed record NameMaster : Gesture
{
    public string? Name { get; init; }

    public override Edit ToEdit(Ground ground) =>
        new RenameMaster(ground.Spread.Master?.Id ?? throw new EditRefused("name", "This is no master."), Name ?? "");
}

/// <summary>Frames that went their own way follow their master again.</summary>
public sealed record FollowMasterAgain : Gesture
{
    public override Edit ToEdit(Ground ground) => new FollowMaster(FrameIds);
}
