using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>A shape on a page that holds an image or text; a placeholder while it holds neither.</summary>
public sealed record Frame : Part
{
    /// <summary>No frame is narrower or lower than this, in points: a thousandth of a millimetre.</summary>
    public const double SmallestSide = Limits.SmallestSide;

    public const int LongestName = 200;

    public required int Id { get; init; }

    /// <summary>The page the frame keeps to.</summary>
    public required int PageId { get; init; }

    public string Name { get; init; } = "";

    /// <summary>The frame's box, in points from the upper left of its page's trim.</summary>
    public required Box Box { get; init; }

    /// <summary>How far the frame is turned, with its picture, about the middle of its box: degrees clockwise.</summary>
    public double Angle { get; init; }

    public Pose Pose => new(Box, Angle);

    public Outline Outline { get; init; } = Outline.Rectangle;

    /// <summary>Stacking order on the spread: the higher lies above. Equal ones stack by id.</summary>
    public int Depth { get; init; }

    /// <summary>No frame lies higher, or as far below 0: there is room above for all that are made.</summary>
    public const int MostDepth = 1_000_000_000;

    /// <summary>Whether it is kept from being moved, sized or removed by mistake.</summary>
    public bool Locked { get; init; }

    /// <summary>Whether it is neither shown nor printed.</summary>
    public bool Hidden { get; init; }

    /// <summary>The group it belongs to; null for none. Frames of one group are chosen together.</summary>
    public int? GroupId { get; init; }

    public int? RuleId { get; init; }

    /// <summary>The fitting settings that were set on the frame itself.</summary>
    public FitSettings Own { get; init; } = FitSettings.Open;

    public Recrop Recrop { get; init; } = Recrop.None;

    /// <summary>The hand correction that was let go last; null where none was, or another was made since.</summary>
    public FormerRecrop? FormerRecrop { get; init; }

    /// <summary>How the image lies, where the frame does not stay fitted and has one; else null.</summary>
    public Held? Held { get; init; }

    /// <summary>The image in the frame; null for a placeholder.</summary>
    public int? ImageId { get; init; }

    /// <summary>The named look it has; null for none.</summary>
    public int? LookId { get; init; }

    /// <summary>What of its look was set on the frame itself.</summary>
    public LookSettings Look { get; init; } = LookSettings.Open;

    /// <summary>The frame of a master page that it goes by, while nothing else was done to it on its page; null for none.</summary>
    public int? MasterFrameId { get; init; }

    public override PartKey Key => new(PartKind.Frame, Id);

    /// <summary>The story that runs through a text frame; null for an image frame.</summary>
    public int? StoryId { get; init; }

    /// <summary>Where in the frame its text is set; null for all of it in one column.</summary>
    public TextArea? Area { get; init; }

    /// <summary>How text of other frames keeps clear of it; null where it does not.</summary>
    public Wrap? Wrap { get; init; }

    public bool IsText => StoryId is not null;

    public bool IsPlaceholder => ImageId is null && StoryId is null;

    /// <summary>Whether it is as a frame of a master is in all that it has from there; what is in it is its own.</summary>
    public bool Follows(Frame master) => Box == master.Box && Angle == master.Angle && Outline == master.Outline && RuleId == master.RuleId
        && Own == master.Own && LookId == master.LookId && Look == master.Look && Area == master.Area && Wrap == master.Wrap;

    /// <summary>The frame with its picture as the rule alone fits it; the hand correction can be had back.</summary>
    public Frame WithoutRecrop() => this with { Held = null, Recrop = Recrop.None, FormerRecrop = Recrop == Recrop.None ? FormerRecrop : new(Recrop, false) };

    /// <summary>The frame with another picture, or none, which starts as the rule fits it; one that shows the picture already stays as it is fitted.</summary>
    public Frame Showing(int? imageId)
    {
        if (imageId == ImageId) return this with { Held = null };
        var fresh = WithoutRecrop();
        return fresh with { ImageId = imageId, FormerRecrop = fresh.FormerRecrop is { } former ? former with { OfAnotherPicture = true } : null };
    }

    /// <summary>The name people gave it, or one that tells frames apart.</summary>
    public string Label => Name.Length > 0 ? Name : $"Frame {Id}";
}
