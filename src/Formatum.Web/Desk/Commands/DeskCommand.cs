using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Storage;
using Formatum.Web.Links;

namespace Formatum.Web.Desk.Commands;

/// <summary>What a person does on the Desk, as the page sends it: one record for each thing that can be done, named in "do".</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "do")]
[JsonDerivedType(typeof(DrawFrame), "draw")]
[JsonDerivedType(typeof(DrawHere), "draw-here")]
[JsonDerivedType(typeof(DrawPoints), "draw-free")]
[JsonDerivedType(typeof(DrawStroke), "draw-stroke")]
[JsonDerivedType(typeof(DrawGrid), "grid")]
[JsonDerivedType(typeof(SetDownPicture), "set-down")]
[JsonDerivedType(typeof(MoveFrames), "move")]
[JsonDerivedType(typeof(ResizeFrames), "resize")]
[JsonDerivedType(typeof(TurnFrames), "turn")]
[JsonDerivedType(typeof(NudgeFrames), "nudge")]
[JsonDerivedType(typeof(DragGap), "gutter")]
[JsonDerivedType(typeof(FindGap), "find-gutter")]
[JsonDerivedType(typeof(SetTextFlow), "flow")]
[JsonDerivedType(typeof(FindContour), "contour")]
[JsonDerivedType(typeof(RunTextOn), "run-on")]
[JsonDerivedType(typeof(BreakTextChain), "break-chain")]
[JsonDerivedType(typeof(TypeFrame), "type")]
[JsonDerivedType(typeof(LineUpFrames), "line-up")]
[JsonDerivedType(typeof(SpreadOutFrames), "distribute")]
[JsonDerivedType(typeof(SizeAlike), "same")]
[JsonDerivedType(typeof(ExtendToBleed), "to-bleed")]
[JsonDerivedType(typeof(Flip), "flip")]
[JsonDerivedType(typeof(Restack), "stack")]
[JsonDerivedType(typeof(Repeat), "repeat")]
[JsonDerivedType(typeof(Lock), "lock")]
[JsonDerivedType(typeof(Unlock), "unlock")]
[JsonDerivedType(typeof(Hide), "hide")]
[JsonDerivedType(typeof(Show), "show")]
[JsonDerivedType(typeof(Group), "group")]
[JsonDerivedType(typeof(Ungroup), "ungroup")]
[JsonDerivedType(typeof(Remove), "remove")]
[JsonDerivedType(typeof(ChooseOutline), "outline")]
[JsonDerivedType(typeof(TakeDrawingOutline), "outline-of-drawing")]
[JsonDerivedType(typeof(MovePoint), "shape-move")]
[JsonDerivedType(typeof(NudgePoint), "shape-nudge")]
[JsonDerivedType(typeof(AddPoint), "shape-add")]
[JsonDerivedType(typeof(AddPointAfter), "shape-add-next")]
[JsonDerivedType(typeof(RemovePoint), "shape-remove")]
[JsonDerivedType(typeof(BendPoint), "shape-bend")]
[JsonDerivedType(typeof(DragGuide), "guide")]
[JsonDerivedType(typeof(ChooseFit), "fit")]
[JsonDerivedType(typeof(NextFit), "step-fit")]
[JsonDerivedType(typeof(AlignPicture), "align")]
[JsonDerivedType(typeof(TypeSetting), "set")]
[JsonDerivedType(typeof(FitOnce), "fit-once")]
[JsonDerivedType(typeof(ChooseRule), "rule")]
[JsonDerivedType(typeof(ClearSettings), "clear")]
[JsonDerivedType(typeof(MakeRule), "make-rule")]
[JsonDerivedType(typeof(PanPicture), "picture-pan")]
[JsonDerivedType(typeof(NudgePicture), "picture-nudge")]
[JsonDerivedType(typeof(ZoomPicture), "picture-zoom")]
[JsonDerivedType(typeof(ZoomPictureMiddle), "picture-zoom-middle")]
[JsonDerivedType(typeof(PinchPicture), "picture-pinch")]
[JsonDerivedType(typeof(PullPictureCorner), "picture-corner")]
[JsonDerivedType(typeof(TurnPicture), "picture-turn")]
[JsonDerivedType(typeof(SlidePicture), "picture-slide")]
[JsonDerivedType(typeof(TypePicture), "picture-figures")]
[JsonDerivedType(typeof(ResetPicture), "picture-reset")]
[JsonDerivedType(typeof(RecropBack), "recrop-back")]
[JsonDerivedType(typeof(TakeOnMeasure), "frame-to-picture")]
[JsonDerivedType(typeof(SetSubject), "subject-set")]
[JsonDerivedType(typeof(AcceptSubject), "subject-accept")]
[JsonDerivedType(typeof(DismissSubject), "subject-dismiss")]
[JsonDerivedType(typeof(ClearSubject), "subject-clear")]
[JsonDerivedType(typeof(AcceptAllSubjects), "subject-accept-all")]
[JsonDerivedType(typeof(PlacePicture), "place")]
[JsonDerivedType(typeof(TakeOutPicture), "take-out")]
[JsonDerivedType(typeof(Unlink), "unlink")]
[JsonDerivedType(typeof(AddToTray), "tray-add")]
[JsonDerivedType(typeof(AddUnplacedToTray), "tray-add-unplaced")]
[JsonDerivedType(typeof(RemoveFromTray), "tray-remove")]
[JsonDerivedType(typeof(ClearTray), "tray-clear")]
[JsonDerivedType(typeof(ReorderTray), "tray-reorder")]
[JsonDerivedType(typeof(PlaceInHand), "tray-place")]
[JsonDerivedType(typeof(PreviewInHand), "tray-preview")]
[JsonDerivedType(typeof(Arrive), "arrive")]
[JsonDerivedType(typeof(SendBack), "send-back")]
[JsonDerivedType(typeof(Swap), "swap")]
[JsonDerivedType(typeof(ReplaceEverywhere), "replace-everywhere")]
[JsonDerivedType(typeof(SetLook), "look")]
[JsonDerivedType(typeof(PutNamedLook), "named-look")]
[JsonDerivedType(typeof(ClearLook), "clear-look")]
[JsonDerivedType(typeof(MakeLook), "make-look")]
[JsonDerivedType(typeof(Write), "write")]
[JsonDerivedType(typeof(FillWithSample), "sample-words")]
[JsonDerivedType(typeof(PasteStyledWords), "paste-words")]
[JsonDerivedType(typeof(StyleWords), "text-style")]
[JsonDerivedType(typeof(PutWordsStyle), "put-style")]
[JsonDerivedType(typeof(MakeWordsStyle), "make-style")]
[JsonDerivedType(typeof(BasePage), "base")]
[JsonDerivedType(typeof(NameMaster), "rename-master")]
[JsonDerivedType(typeof(FollowMasterAgain), "follow-master")]
[JsonDerivedType(typeof(Undo), "undo")]
[JsonDerivedType(typeof(Redo), "redo")]
[JsonDerivedType(typeof(TakeBack), "take-back")]
[JsonDerivedType(typeof(GoTo), "go-to")]
[JsonDerivedType(typeof(Cut), "cut")]
[JsonDerivedType(typeof(Paste), "paste")]
[JsonDerivedType(typeof(PasteRule), "paste-rule")]
[JsonDerivedType(typeof(PasteLook), "paste-look")]
[JsonDerivedType(typeof(LookAgain), "look-again")]
public abstract record DeskCommand
{
    /// <summary>Ids of the frames it is about, with commas between.</summary>
    public string? Frames { get; init; }

    /// <summary>Ids of the frames that stay chosen, where those are others; "none" for none.</summary>
    public string? Keep { get; init; }

    /// <summary>Whether the Desk is to go where something changed.</summary>
    [JsonIgnore]
    public virtual bool GoesThere => false;

    protected ImmutableArray<int> FrameIds => [.. DeskView.Ids(Frames)];

    /// <summary>Does it.</summary>
    /// <exception cref="EditRefused">It asks for nothing that can be done.</exception>
    public abstract Task<EditOutcome> DoAsync(Hand hand);
}

/// <summary>A command that is an edit of what lies on the spread.</summary>
public abstract record Gesture : DeskCommand
{
    /// <summary>The edit this asks for.</summary>
    /// <exception cref="EditRefused">It asks for nothing that can be done.</exception>
    public abstract Edit ToEdit(Ground ground);

    public override async Task<EditOutcome> DoAsync(Hand hand) => await hand.EditAsync(ToEdit(await hand.GroundAsync()));

    protected IReadOnlyList<Frame> FramesOf(Ground ground) => ground.Frames(FrameIds);

    protected Frame FirstFrame(Ground ground) => FramesOf(ground)[0];
}

/// <summary>Who does something, where, and what they had seen of it.</summary>
public sealed record Hand(PublicationStore Store, CopiedFrames Copied, ContourFinder Contours, PreviewMaker Previews, PicturePixels Pixels, int PublicationId,
    int SpreadNumber, Seen Seen)
{
    public Task<Standing> StandingAsync(int? publicationId = null) => Store.OpenAsync(publicationId ?? PublicationId);

    public async Task<Ground> GroundAsync() => Ground.Of(await StandingAsync(), SpreadNumber);

    /// <summary>Does a command once, however often it is sent.</summary>
    public Task<EditOutcome> DoAsync(DeskCommand command) => Store.OnceAsync(PublicationId, Seen, () => command.DoAsync(this));

    public Task<EditOutcome> EditAsync(Edit edit) => Store.EditAsync(PublicationId, edit, Seen);
}
