using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>What a person does on the Desk, as the page sends it: a name, and where the pointer went or what was typed.</summary>
public sealed partial record DeskCommand
{
    public string Do { get; init; } = "";

    /// <summary>That it also takes back what others did was told, and is wanted.</summary>
    public bool Sure { get; init; }

    /// <summary>Ids of the frames it is about, with commas between.</summary>
    public string? Frames { get; init; }

    /// <summary>Ids of the frames that stay chosen, where those are others; "none" for none.</summary>
    public string? Keep { get; init; }

    public int? Image { get; init; }

    /// <summary>Under this name the server keeps what was copied or cut.</summary>
    public string? Token { get; init; }

    /// <summary>Where the pointer went down and where it is, in points of the spread.</summary>
    public double FromX { get; init; }
    public double FromY { get; init; }
    public double ToX { get; init; }
    public double ToY { get; init; }

    public string? Grip { get; init; }

    /// <summary>Shift was held: equal sides, or the ratio kept, or a turn in steps.</summary>
    public bool Even { get; init; }

    public string? X { get; init; }
    public string? Y { get; init; }
    public string? Width { get; init; }
    public string? Height { get; init; }
    public string? Name { get; init; }
    public FitKind? Fit { get; init; }

    /// <summary>The rule to put on the frame; null for none.</summary>
    public int? Rule { get; init; }

    /// <summary>The master to base a page on; null for none.</summary>
    public int? Master { get; init; }

    public double? AlignX { get; init; }
    public double? AlignY { get; init; }

    /// <summary>The settings meant: one to set or clear, or several to make a rule of.</summary>
    public FitSetting[] Settings { get; init; } = [];

    /// <summary>What was typed for the one setting, or for a guide; "none" takes the guide away.</summary>
    public string? Value { get; init; }

    /// <summary>For nudging: how many steps right and down.</summary>
    public int StepsX { get; init; }
    public int StepsY { get; init; }

    /// <summary>For a picture under the hand.</summary>
    public double? Factor { get; init; }
    public string? ScaleX { get; init; }
    public string? ScaleY { get; init; }
    public bool Linked { get; init; } = true;
    public string? OffsetX { get; init; }
    public string? OffsetY { get; init; }
    public string? Angle { get; init; }
    public double? Slide { get; init; }
    public bool NoBareArea { get; init; } = true;

    /// <summary>For a frame that takes on the measure of its picture.</summary>
    public FrameTakes Takes { get; init; }

    public double ReferenceX { get; init; } = 0.5;
    public double ReferenceY { get; init; } = 0.5;

    /// <summary>A point of an image, in fractions of it.</summary>
    public double? PointX { get; init; }
    public double? PointY { get; init; }

    /// <summary>The fits that have a button of their own on the Desk, and are stepped through, in order.</summary>
    public static readonly ImmutableArray<FitKind> Fits = [FitKind.Fill, FitKind.Fit, FitKind.Stretch, FitKind.Natural];

    /// <summary>The others, in a list.</summary>
    public static readonly ImmutableArray<FitKind> MoreFits = [FitKind.Shrink, FitKind.Width, FitKind.Height, FitKind.FillOrFit];

    /// <summary>A turn with Shift goes in steps of so many degrees.</summary>
    private const double TurnStep = 15;

    private Vec From => new(FromX, FromY);
    private Vec To => new(ToX, ToY);

    private ImmutableArray<int> FrameIds => [.. DeskView.Ids(Frames)];

    /// <summary>The edit this asks for.</summary>
    /// <exception cref="EditRefused">It asks for nothing that can be done.</exception>
    public Edit ToEdit(Publication publication, Spread spread) => Do switch
    {
        "type" => Typed(publication, spread),
        "fit" => Setting(new() { Fit = Fit ?? throw new EditRefused("fit", "Choose a fit.") }),
        "step-fit" => Setting(new() { Fit = Next(publication.FitOf(Only(publication)).Fit) }),
        "align" => Setting(new() { AlignX = AlignX, AlignY = AlignY }),
        "set" => Set(publication),
        "fit-once" => new ChangeFrames { FrameIds = FrameIds, FitOnce = true },
        "rule" => new ChangeFrames { FrameIds = FrameIds, RuleId = new(Rule) },
        "clear" => new ChangeFrames { FrameIds = FrameIds, Clear = [.. Settings], ClearSet = Settings.Length == 0 },
        "make-rule" => MakeRule(publication),
        "place" => new ChangeFrames { FrameIds = FrameIds, ImageId = new(Image ?? throw new EditRefused("image", "Choose an image.")) },
        "take-out" => new ChangeFrames { FrameIds = FrameIds, ImageId = new(null) },
        "remove" => new RemoveFrames(FrameIds),
        "cut" => new RemoveFrames(FrameIds),
        "write" => Write(publication),
        "base" => new BasePages([Page ?? spread.Pages[0].Number], Master),
        "rename-master" => new RenameMaster(spread.Master?.Id ?? throw new EditRefused("name", "This is no master."), Name ?? ""),
        "follow-master" => new FollowMaster(FrameIds),
        "look" => ChangeLook(publication),
        "text-style" => StyleText(publication),
        "unlink" => new UnlinkImages([Image ?? throw new EditRefused("image", "Choose an image.")]),
        "frame-to-picture" => new TakeMeasure(FrameIds, Takes, new(ReferenceX, ReferenceY)),
        "picture-reset" => new ChangeFrames { FrameIds = FrameIds, Recrop = Recrop.None },
        _ when Do.StartsWith("picture-", StringComparison.Ordinal) => new RecropFrame(Only(publication).Id, Hand(publication, spread), NoBareArea),
        _ when Do.StartsWith("subject-", StringComparison.Ordinal) => Subject(publication),
        _ when Fill(publication, spread) is { } filled => filled,
        _ when Arrange(publication, spread) is { } arranged => arranged,
        _ => throw new EditRefused("do", $"Nothing is done by \"{Do}\"."),
    };

    private ChangeFrames Setting(FitSettings set) => new() { FrameIds = FrameIds, Set = set };

    private static FitKind Next(FitKind fit) => Fits[(Fits.IndexOf(fit) + 1) % Fits.Length];

    private IEnumerable<Frame> FramesOf(Publication publication)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        foreach (int id in FrameIds)
            yield return publication.Frames.GetValueOrDefault(id) ?? throw new NoSuchPart("frame",
                "That frame is no longer there. It may have been removed in another window.");
    }

    private Frame Only(Publication publication) => FramesOf(publication).First();

    private static double? Length(Publication publication, string field, string text, FieldErrors errors, double current = 0) =>
        SettingText.Length(field, text, publication.Setup.Unit, current, true, errors);

    private ChangeFrames Set(Publication publication)
    {
        var errors = new FieldErrors();
        var set = FitSettings.Open;
        var now = publication.FitOf(Only(publication));
        foreach (var setting in Settings) set = set.Over(SettingText.Read(setting, Value, publication.Setup.Unit, now, errors));
        errors.ThrowIfAny();
        return Setting(set);
    }

    private DefineRule MakeRule(Publication publication)
    {
        var frame = Only(publication);
        if (Settings.Length == 0) throw new EditRefused("settings", "A rule of nothing would do nothing. Choose what goes into it.");
        return new()
        {
            Name = Name ?? "",
            BasedOnId = frame.RuleId,
            LikeFrameId = frame.Id,
            Settings = publication.FitOf(frame).ToSettings()
            .Where(s => Settings.Contains(s))
        };
    }

    private HandMove Hand(Publication publication, Spread spread)
    {
        var frame = Only(publication);
        var toFrame = PoseOn(spread, frame).ToPage.Inverse();
        Vec from = toFrame.Apply(From), to = toFrame.Apply(To);
        var fitting = publication.PictureFitOf(frame) ?? throw new EditRefused("frame", $"{frame.Label} has no picture yet. Place one first.");
        switch (Do)
        {
            case "picture-pan": return new HandMove.Pan(to - from);
            case "picture-nudge": return new HandMove.Pan(Affine.Rotation(-frame.Angle).Apply(Step(publication) * new Vec(StepsX, StepsY)));
            case "picture-zoom": return new HandMove.Zoom(FactorGiven(), from);
            case "picture-zoom-middle": return new HandMove.Zoom(FactorGiven(), fitting.FitBox.Centre);
            case "picture-pinch": return new HandMove.Pinch(FactorGiven(), from, to);
            case "picture-corner":
                var grip = Core.Arranging.Grip.Named(Grip) is { X: not 0, Y: not 0 } corner ? corner :
                    throw new EditRefused("grip", $"A picture has no corner \"{Grip}\".");
                return new HandMove.Corner((grip.X + 1) / 2.0, (grip.Y + 1) / 2.0, to);
            case "picture-turn":
                Vec middle = fitting.FitBox.Centre, before = from - middle, after = to - middle;
                double turn = Math.Atan2(before.Cross(after), before.X * after.X + before.Y * after.Y) * (180 / Math.PI);
                if (!Even) return new HandMove.Turn(turn);
                double angle = Recropping.Measures(fitting.Rule, publication.PlacementOf(frame)!.Value.Matrix).Angle;
                return new HandMove.Turn(Math.Round((angle + turn) / TurnStep) * TurnStep - angle);
            case "picture-slide":
                double scale = PictureView.ScaleAt(fitting, Slide ?? 0);
                var now = publication.PlacementOf(frame)!.Value;
                return new HandMove.Figures(scale, scale * now.ScaleY / now.ScaleX, null, null, null);
            case "picture-figures": return Figures(publication, frame);
            default: throw new EditRefused("do", $"Nothing is done by \"{Do}\".");
        }
    }

    private double FactorGiven() => Factor is > 0 and < 1e6 ? Factor.Value : throw new EditRefused("factor", "Zoom by a factor above 0.");

    private HandMove.Figures Figures(Publication publication, Frame frame)
    {
        var errors = new FieldErrors();
        double? Scale(string field, string? text)
        {
            if (text is null) return null;
            if (SettingText.Percentage(text) is > 0 and { } share) return share;
            errors.Add(field, $"\u201c{text}\u201d is not a scale. Type a percentage above 0; 100 % is natural size.");
            return null;
        }
        double? x = Scale("scaleX", ScaleX), y = Scale("scaleY", ScaleY);
        var offset = publication.PlacementOf(frame)!.Value.Matrix.Apply(new(0.5, 0.5)) - publication.PictureFitOf(frame)!.Value.FitBox.Centre;
        // Linked, the other scale goes with the one that was typed, keeping what the two are to each other now.
        var now = publication.PlacementOf(frame)!.Value;
        if (Linked && x is { } sx && y is null) y = sx * now.ScaleY / now.ScaleX;
        else if (Linked && y is { } sy && x is null) x = sy * now.ScaleX / now.ScaleY;
        double? angle = Angle is null ? null : SettingText.Number(Angle.Trim().TrimEnd('\u00b0'));
        if (Angle is not null && angle is null) errors.Add("angle", $"\u201c{Angle}\u201d is not an angle. Type degrees, such as 3 or -90.");
        var figures = new HandMove.Figures(x, y, OffsetX is null ? null : Length(publication, "offsetX", OffsetX, errors, offset.X), OffsetY is null ? null
            : Length(publication, "offsetY", OffsetY, errors, offset.Y), angle);
        errors.ThrowIfAny();
        return figures;
    }

    private ChangeSubjects Subject(Publication publication)
    {
        if (Do == "subject-accept-all")
        {
            ImmutableArray<SubjectOf> open = [.. publication.Images.Values.Where(i => i.Subject is null && i.SuggestedSubject is not null).OrderBy(i => i.Id)
                .Select(i => new SubjectOf(i.Id, i.SuggestedSubject, null))];
            return open.IsEmpty ? throw new EditRefused("image", "There are no suggestions to accept.") : new(open);
        }
        var image = Image is { } id && publication.Images.TryGetValue(id, out var found) ? found : throw new EditRefused("image", "Choose an image.");
        return new([Do switch
        {
            "subject-set" => PointX is { } x && PointY is { } y ? new SubjectOf(image.Id, new Vec(x, y), null) :
                throw new EditRefused("subject", "Click on the picture where its subject is."),
            "subject-accept" => new SubjectOf(image.Id, image.SuggestedSubject ?? throw new EditRefused("subject", "There is no suggestion to accept."), null),
            "subject-dismiss" => new SubjectOf(image.Id, image.Subject, null),
            "subject-clear" => new SubjectOf(image.Id, null, image.SuggestedSubject),
            _ => throw new EditRefused("do", $"Nothing is done by \"{Do}\"."),
        }]);
    }
}
