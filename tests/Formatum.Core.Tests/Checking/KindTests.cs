using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Edits;

namespace Formatum.Core.Tests.Checking;

/// <summary>Each kind of finding: one that just has it, one that just has not, and a remedy that does away with it and with nothing else.</summary>
public sealed class KindTests
{
    private static double Mm(double mm) => Units.Millimetres(mm);

    /// <summary>In the middle of page 1.</summary>
    private static readonly Box Middle = new(Mm(40), Mm(40), Mm(80), Mm(60));

    private static string[] Kinds(Publication p, CheckProfile? profile = null) =>
        [.. p.Check(profile: profile).All.Select(f => $"{f.Kind} {f.Part.Kind}").Order()];

    /// <summary>Holds a remedy to what it says: the finding goes, no other comes or goes, and undo brings it back.</summary>
    private static Publication Mends(Publication p, FindingKind kind, string? remedy = null, CheckProfile? profile = null)
    {
        var before = p.Check(profile: profile);
        before.All.ShouldContain(f => f.Kind == kind);
        var mending = Mending.Of(p, [.. before.All.Where(f => f.Kind == kind)], remedy, profile ?? CheckedPublications.Offset, CheckedPublications.Fonts);
        mending.Left.ShouldBeEmpty();
        var changes = mending.Edit.ShouldNotBeNull().On(p);
        var after = p.With(changes);
        Kinds(after, profile).ShouldBe(Kinds(p, profile).Where(k => !k.StartsWith($"{kind} ", StringComparison.Ordinal)));
        after.With(changes.Inverse()).Check(profile: profile).All.ShouldBe(before.All);
        return after;
    }

    [Fact]
    public void A_clean_publication_has_no_findings() => CheckedPublications.Clean().Check().All.ShouldBeEmpty();

    [Fact]
    public void Three_hundred_ppi_over_254_mm_are_three_thousand_pixels()
    {
        // Common practice: pixels = ppi x mm / 25.4.
        Publication Of(int pixels) => CheckedPublications.Clean().Linked(CheckedPublications.Image("wide.jpg", pixels, pixels / 2))
            .Do(new MakeFrame { Page = 1, Box = new(Mm(-22), Mm(40), Mm(254), Mm(127)), ImageId = null });
        Publication Filled(int pixels) => Of(pixels) is var p ? p.Do(new ChangeFrames { FrameIds = [p.Last().Id], ImageId = new(p.Images.Keys.Single()) }) : p;
        Filled(3000).Found(FindingKind.BelowWantedPpi).ShouldBeNull();
        // Half a ppi is no difference (common practice, no source).
        Filled(2996).Found(FindingKind.BelowWantedPpi).ShouldBeNull();
        var found = Filled(2994).Found(FindingKind.BelowWantedPpi).ShouldNotBeNull();
        found.Figures.Single().Value.ShouldBe(299.4, 1e-9);
        found.Figures.Single().Asked.ShouldBe(300);
        Filled(1500).Found(FindingKind.BelowLeastPpi).ShouldBeNull();
        Filled(1494).Found(FindingKind.BelowLeastPpi).ShouldNotBeNull().Severity.ShouldBe(Severity.Fault);
        Filled(1494).Found(FindingKind.BelowWantedPpi).ShouldBeNull();
    }

    [Fact]
    public void A_coarse_picture_is_held_back_or_a_larger_of_the_same_name_taken()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 400, 300)).Placed(Middle);
        var held = Mends(p, FindingKind.BelowLeastPpi, "holdBack", CheckedPublications.With(FindingKind.BelowWantedPpi, Severity.Off));
        held.FittedOf(held.Last())!.Value.Coverage.Ppi.ShouldBe(150, 1e-6);
        var coarse = p.Last().Id;
        var both = p.Linked(CheckedPublications.Image("Vase.JPG", 4000, 3000, hash: 'b'));
        var larger = Mends(both, FindingKind.BelowLeastPpi);
        larger.ImageOf(larger.Frames[coarse])!.WidthPx.ShouldBe(4000);
    }

    [Fact]
    public void A_picture_out_of_proportion_is_fitted_again()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 3000, 3000)).Placed(Middle);
        var stretched = p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Set = new() { Fit = FitKind.Stretch } });
        stretched.Found(FindingKind.Stretched)!.Figures.Single().Value.ShouldBe(100 * 80 / 60.0, 1e-6);
        Mends(stretched, FindingKind.Stretched);
        var byHand = p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Recrop = new(1, new(0.5, 0.5), 1.4) });
        Mends(byHand, FindingKind.Stretched).Last().Recrop.Point.ShouldBe(new(0.5, 0.5));
        p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Recrop = new(1, new(0.5, 0.5), 1.004) }).Found(FindingKind.Stretched).ShouldBeNull();
    }

    [Fact]
    public void A_picture_larger_than_its_rule_wants_is_held_back()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 1600, 1200, 600)).Placed(Middle);
        double scale = p.FittedOf(p.Last())!.Value.Placement.ScaleX;
        Publication Limited(double most) => p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Set = new() { LargestEnlargement = most } });
        Limited(scale).Found(FindingKind.Enlarged).ShouldBeNull();
        Mends(Limited(scale * 0.99), FindingKind.Enlarged);
    }

    [Fact]
    public void Bare_area_a_hand_left_is_filled_again_and_what_a_rule_leaves_is_no_fault()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 3000, 3000)).Placed(Middle);
        Mends(p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Recrop = new(0.8, null) }), FindingKind.BareArea);
        p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Set = new() { Fit = FitKind.Fit } }).Found(FindingKind.BareArea).ShouldBeNull();
        p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Set = new() { InsetLeft = 10 } }).Found(FindingKind.BareArea).ShouldBeNull();
    }

    [Fact]
    public void An_empty_placeholder_takes_the_next_picture_of_the_tray_or_goes()
    {
        var p = CheckedPublications.Clean().Do(new MakeFrame { Page = 2, Box = Middle });
        Mends(p, FindingKind.EmptyPlaceholder).Frames.ContainsKey(p.Last().Id).ShouldBeFalse();
        int id = p.Last().Id;
        var waiting = p.Linked(CheckedPublications.Image("vase.jpg", 3000, 3000));
        waiting = waiting.Do(new ChangeTray([waiting.Images.Keys.Single()], TrayMove.Add));
        Mends(waiting, FindingKind.EmptyPlaceholder).Frames[id].ImageId.ShouldNotBeNull();
        p.Do(new ChangeLook([id], new() { Background = new(CheckedPublications.InkBlack) })).Found(FindingKind.EmptyPlaceholder).ShouldBeNull();
    }

    [Fact]
    public void A_subject_out_of_sight_comes_back_with_the_rules_crop()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 6000, 2000)).Placed(Middle);
        p = p.Do(new ChangeSubjects([new(p.Images.Keys.Single(), new(0.1, 0.5), null)]));
        p.Found(FindingKind.SubjectOutside).ShouldBeNull();
        Mends(p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Recrop = new(1, new(0.9, 0.5)) }), FindingKind.SubjectOutside);
    }

    [Fact]
    public void Text_left_over_runs_on_is_set_smaller_or_gets_pages()
    {
        // Letters are half as wide as high: 20 of 10 points fill 100 points.
        string words = string.Join(' ', Enumerable.Repeat("abcdefghi", 40));
        var p = CheckedPublications.Clean().Text(1, new(Mm(40), Mm(40), 200, 105), words);
        var found = p.Found(FindingKind.TextLeftOver).ShouldNotBeNull();
        found.Figures.Single().Unit.ShouldBe(FigureUnit.Words);
        Mends(p, FindingKind.TextLeftOver, "setSmaller");
        int frame = p.Last().Id;
        Mends(p.Text(2, Middle, ""), FindingKind.TextLeftOver).StoryOf(p.Frames[frame])!.FrameIds.Length.ShouldBe(1 + 1);
        p.Mended(FindingKind.TextLeftOver, "addPages").Found(FindingKind.TextLeftOver).ShouldBeNull();
        var far = CheckedPublications.Clean().Text(1, new(Mm(40), Mm(40), 100, 40), words);
        // Its style may allow more than four fifths of its size.
        var willing = CheckedPublications.Clean().Text(1, new(Mm(40), Mm(40), 100, 140), words, new() { SmallestSize = 5 });
        Mends(willing, FindingKind.TextLeftOver, "setSmaller").StoryOf(willing.Last())!.Text.Paragraphs[0].Set.Size!.Value.ShouldBeInRange(5, 7.9);
        // Where it would not fit however small it may be, that is not offered.
        Keys(far, FindingKind.TextLeftOver).ShouldBe(["addPages"]);
        Keys(p, FindingKind.TextLeftOver).ShouldBe(["setSmaller", "addPages"]);
        Mending.Of(far, [far.Found(FindingKind.TextLeftOver)!], "setSmaller", CheckedPublications.Offset, CheckedPublications.Fonts).Left.Length.ShouldBe(1);
    }

    [Fact]
    public void A_field_that_is_mistyped_becomes_the_one_that_is_meant()
    {
        var p = CheckedPublications.Clean().Text(1, Middle, "Page {pgae} of {pages}");
        p.Found(FindingKind.UnknownField)!.Detail.ShouldContain("{pgae}");
        Mends(p, FindingKind.UnknownField).StoryOf(p.Last())!.Text.Plain.ShouldBe("Page {pgae} of {pages}".Replace("pgae", "page", StringComparison.Ordinal));
        CheckedPublications.Clean().Text(1, Middle, "Page {page}, {heading 2}, {12}, {a b c}").Found(FindingKind.UnknownField).ShouldBeNull();
    }

    [Fact]
    public void Type_that_is_too_small_is_set_larger()
    {
        Mends(CheckedPublications.Clean().Text(1, Middle, "Small", new() { Size = 4.9 }), FindingKind.SmallType);
        CheckedPublications.Clean().Text(1, Middle, "Small", new() { Size = 5 }).Found(FindingKind.SmallType).ShouldBeNull();
    }

    [Fact]
    public void Small_black_words_of_several_inks_are_set_in_ink_black()
    {
        var rich = new CmykColour(0.6, 0.4, 0.4, 1);
        var p = Mends(CheckedPublications.Clean().Text(1, Middle, "Black", new() { Colour = rich }), FindingKind.BlackOfManyInks);
        p.FiguresOf(p.StoryOf(p.Last())!.Text.Paragraphs[0].Set.Colour!).ShouldBe(CheckedPublications.InkBlack);
        CheckedPublications.Clean().Text(1, Middle, "Black", new() { Colour = rich, Size = 30 }).Found(FindingKind.BlackOfManyInks).ShouldBeNull();
        CheckedPublications.Clean().Text(1, Middle, "Grey", new() { Colour = Colour.Of("#202020") }).Found(FindingKind.BlackOfManyInks).ShouldBeNull();
        CheckedPublications.Clean().Text(1, Middle, "Black", new() { Colour = Colour.Black }).Found(FindingKind.BlackOfManyInks).ShouldBeNull();
    }

    [Fact]
    public void A_frame_beside_the_page_is_moved_onto_it()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 3000, 3000)).Placed(new(-Mm(80), Mm(40), Mm(80), Mm(60)), page: 2);
        Mends(p, FindingKind.OffPage);
        // Beside a right-hand page lies the left-hand one.
        CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 3000, 3000)).Placed(new(-Mm(80), Mm(40), Mm(80), Mm(60)), page: 3)
            .Found(FindingKind.OffPage).ShouldBeNull();
    }

    [Theory]
    [InlineData(0, 0, 60, 60)]
    [InlineData(150, 40, 60, 60)]
    [InlineData(-2, 237, 60, 60)]
    [InlineData(-2, -2, 214, 301)]
    public void What_touches_the_trim_is_extended_to_the_bleed(double x, double y, double width, double height)
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 9000, 9000)).Placed(new(Mm(x), Mm(y), Mm(width), Mm(height)));
        var found = p.Found(FindingKind.NoBleed).ShouldNotBeNull();
        found.Figures.Single().Asked!.Value.ShouldBe(Mm(3), 1e-9);
        Mends(p, FindingKind.NoBleed);
    }

    [Fact]
    public void What_bleeds_or_keeps_clear_of_the_trim_is_no_fault_and_pages_without_bleed_are_told_once()
    {
        Publication At(Publication p, double x) => p.Linked(CheckedPublications.Image("vase.jpg", 9000, 9000)).Placed(new(Mm(x), Mm(40), Mm(60), Mm(60)));
        var clean = CheckedPublications.Clean();
        At(clean, -3).Check().All.ShouldBeEmpty();
        At(clean, 3).Check().All.ShouldBeEmpty();
        At(clean, 2.9).Check().All.Single().Kind.ShouldBe(FindingKind.NearTrim);
        // The fold between facing pages is no trim.
        clean.Linked(CheckedPublications.Image("vase.jpg", 9000, 9000)).Placed(new(0, Mm(40), Mm(60), Mm(60)), page: 3).Check().All.ShouldBeEmpty();
        var narrow = clean.Do(new ChangeSetup(clean.Setup with { Bleed = Mm(1) }));
        narrow.Check().All.ShouldBeEmpty();
        Mends(At(narrow, -1), FindingKind.NoBleed).Setup.Bleed.ShouldBe(Mm(3), 1e-9);
    }

    [Fact]
    public void What_stands_too_near_to_the_trim_moves_inside()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 9000, 9000)).Placed(new(Mm(1), Mm(295 - 60), Mm(60), Mm(60)));
        var moved = Mends(p, FindingKind.NearTrim);
        moved.Last().Box.X.ShouldBe(Mm(3), 1e-6);
        moved.Last().Box.Bottom.ShouldBe(Mm(294), 1e-6);
        Mends(CheckedPublications.Clean().Text(2, new(Mm(1), Mm(40), Mm(50), Mm(20)), "Words"), FindingKind.NearTrim);
        Mends(CheckedPublications.Clean().Text(2, new(Mm(1), Mm(60), Mm(208), Mm(20)),
            string.Join(' ', Enumerable.Repeat("words", 40)), new() { Alignment = TextAlignment.Justified }), FindingKind.NearTrim);
    }

    [Fact]
    public void Words_across_the_fold_move_to_one_side()
    {
        var p = CheckedPublications.Clean().Text(2, new(Mm(150), Mm(40), Mm(100), Mm(20)), "Words that run over the fold of the sheet here");
        Mends(p, FindingKind.AcrossFold);
        CheckedPublications.Clean().Text(2, new(Mm(150), Mm(40), Mm(100), Mm(20)), "Short").Found(FindingKind.AcrossFold).ShouldBeNull();
    }

    [Theory]
    [InlineData(BorderKind.Solid, 0.25, 0.24)]
    [InlineData(BorderKind.Double, 0.75, 0.74)]
    [InlineData(BorderKind.ThickThin, 1, 0.98)]
    public void A_hairline_is_thickened(BorderKind kind, double enough, double thin)
    {
        Publication Bordered(double width) => CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 3000, 3000)).Placed(Middle) is var p
            ? p.Do(new ChangeLook([p.Last().Id], new() { Border = _ => new Border(width, CheckedPublications.InkBlack) { Kind = kind } })) : p;
        Bordered(enough).Check().All.ShouldBeEmpty();
        Mends(Bordered(thin), FindingKind.ThinLine);
    }

    [Fact]
    public void Colours_of_light_become_the_palettes_nearest()
    {
        var p = CheckedPublications.Clean().Do(new MakeFrame { Page = 1, Box = Middle, Look = new() { Background = Colour.Of("#00e0f0") } });
        var mended = Mends(p, FindingKind.ColourNotOfIntent);
        mended.FiguresOf(mended.LookOf(mended.Last()).Background!).ShouldBe(new CmykColour(1, 0, 0, 0));
        Mends(CheckedPublications.Clean().Text(1, Middle, "Red", new() { Colour = Colour.Of("#d01030") }), FindingKind.ColourNotOfIntent);
        p = CheckedPublications.Clean().Do(new DefineColour { Name = "Sun", Colour = Colour.Of("#fff000") });
        p = p.Do(new MakeFrame { Page = 1, Box = Middle, Look = new() { Background = new NamedColour(p.Colours.Keys.Max()) } });
        mended = Mends(p, FindingKind.ColourNotOfIntent);
        mended.FiguresOf(mended.LookOf(mended.Last()).Background!).ShouldBe(new CmykColour(0, 0, 1, 0));
        mended.Colours.Values.ShouldNotContain(c => c.Name == "Sun");
    }

    [Fact]
    public void Links_and_ink_are_told_as_they_are_handed_in()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 3000, 3000)).Placed(Middle).Placed(Middle, 2);
        int image = p.Images.Keys.Single();
        CheckFacts Links(LinkState state) => CheckFacts.None with { Links = ImmutableDictionary<int, LinkState>.Empty.Add(image, state) };
        p.Found(FindingKind.LinkMissing, Links(LinkState.Missing))!.Places.Length.ShouldBe(2);
        p.Found(FindingKind.LinkChanged, Links(LinkState.Changed))!.Subject.ShouldBe("vase.jpg");
        p.Found(FindingKind.LinkMissing).ShouldBeNull();
        CheckFacts Ink(double percent) => CheckFacts.None with
        {
            Inks = ImmutableDictionary<int, InkFact>.Empty.Add(p.Order.Ids[1],
            new(percent, new(90, 90)))
        };
        p.Found(FindingKind.TooMuchInk, Ink(320.5)).ShouldBeNull();
        p.Found(FindingKind.TooMuchInk, Ink(330))!.Subject.ShouldBe("Page 2");
    }

    [Fact]
    public void A_picture_that_comes_twice_is_told_with_its_places()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 3000, 3000)).Placed(Middle);
        p.Check().All.ShouldBeEmpty();
        p.Placed(new(Mm(40), Mm(120), Mm(80), Mm(60))).Check().All.Single().Kind.ShouldBe(FindingKind.PictureTwiceOnPage);
        p.Placed(Middle, 3).Check().All.ShouldBeEmpty();
        p.Placed(Middle, 3).Check(profile: CheckedPublications.With(FindingKind.PictureTwice, Severity.Note)).All.Single()
            .ShouldSatisfyAllConditions(f => f.Kind.ShouldBe(FindingKind.PictureTwice), f => f.Places.Length.ShouldBe(2));
    }

    [Fact]
    public void Pages_that_are_blank_go_and_pages_are_filled_up_to_fours()
    {
        var p = CheckedPublications.Clean(9);
        var blank = p.Do(new RemoveFrames([.. p.FramesOnPage(p.Order.Ids[5]).Select(f => f.Id)]));
        blank.Found(FindingKind.PageBlank)!.Subject.ShouldBe("Page 6");
        blank.Mended(FindingKind.PageBlank).PageCount.ShouldBe(8);
        // Of two findings the remedy of one is not what makes the other.
        p = CheckedPublications.Clean(7).Mended(FindingKind.PagesNotInFours);
        p.PageCount.ShouldBe(8);
        Keys(p, FindingKind.PageBlank).ShouldBeEmpty();
        Mending.RemedyOf(p.Found(FindingKind.PageBlank)!, null, new(p, CheckedPublications.With(FindingKind.PagesNotInFours, Severity.Off),
            CheckedPublications.Fonts))!.Key.ShouldBe("removePage");
        CheckedPublications.Clean(6).Mended(FindingKind.PagesNotInFours).PageCount.ShouldBe(8);
        CheckedPublications.Clean(2).Check().All.ShouldBeEmpty();
    }

    private static IEnumerable<string> Keys(Publication p, FindingKind kind) => CheckKinds.Of(kind)
        .Remedies(new(p, CheckedPublications.Offset, CheckedPublications.Fonts), p.Found(kind)!).Select(r => r.Key);

    [Fact]
    public void A_page_on_which_the_other_halfs_picture_lies_is_not_blank()
    {
        var p = CheckedPublications.Clean(8);
        p = p.Do(new RemoveFrames([.. p.FramesOnPage(p.Order.Ids[1]).Concat(p.FramesOnPage(p.Order.Ids[2])).Select(f => f.Id)]));
        p.Check().All.Count(f => f.Kind == FindingKind.PageBlank).ShouldBe(2);
        // It belongs to page 3, and reaches over page 2.
        p = p.Linked(CheckedPublications.Image("wide.jpg", 9000, 4000)).Placed(new(Mm(-213), Mm(40), Mm(426), Mm(150)), page: 3);
        p.Check().All.ShouldAllBe(f => f.Kind != FindingKind.PageBlank);
    }

    [Fact]
    public void What_a_screen_blends_is_told_and_laid_over_plainly()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 9000, 9000)).Placed(Middle);
        p = p.Do(new GiveLook([p.Last().Id], new LookSettings { Blend = Blend.Multiply }, null));
        p.Found(FindingKind.Blended).ShouldNotBeNull();
        Mends(p, FindingKind.Blended);
    }

    [Fact]
    public void What_nothing_uses_is_removed()
    {
        var p = CheckedPublications.Clean().Do(new DefineRule { Name = "Idle" }).Do(new DefineStyle { Kind = StyleKind.Paragraph, Name = "Idle" })
            .Do(new DefineLook { Name = "Idle" });
        FindingKind[] kinds = [FindingKind.RuleUnused, FindingKind.StyleUnused, FindingKind.LookUnused];
        var tidy = CheckedPublications.Offset with { Kinds = [.. kinds.Select(k => new KindSeverity(k, Severity.Note))] };
        p.Check().All.ShouldBeEmpty();
        foreach (var kind in kinds) Mends(p, kind, profile: tidy);
        int rule = p.Rules.Keys.Max(), style = p.Styles.Keys.Max(), look = p.Looks.Keys.Max();
        var based = p.Do(new DefineRule { Name = "Used", BasedOnId = rule }).Do(new DefineStyle
        {
            Kind = StyleKind.Paragraph,
            Name = "Used",
            BasedOnId = style
        })
            .Do(new DefineLook { Name = "Used", BasedOnId = look });
        var used = based.Do(new ChangeFrames { FrameIds = [p.Last().Id], RuleId = new(based.Rules.Keys.Max()), LookId = new(based.Looks.Keys.Max()) })
            .Do(new PutStyle([p.Last().Id], based.Styles.Keys.Max(), StyleKind.Paragraph));
        used.Check(profile: tidy).All.ShouldBeEmpty();
    }

    [Fact]
    public void What_is_hidden_or_locked_with_something_in_it_is_told_where_it_is_asked_for()
    {
        var p = CheckedPublications.Clean();
        var hidden = p.Text(1, Middle, "Hidden").Do(new ChangeFrames { FrameIds = [p.NextId], Hidden = true });
        hidden.Found(FindingKind.HiddenContent).ShouldNotBeNull();
        Mends(hidden, FindingKind.HiddenContent);
        var locked = p.Do(new ChangeFrames { FrameIds = [p.Last().Id], Locked = true });
        locked.Check().All.ShouldBeEmpty();
        Mends(locked, FindingKind.LockedContent, profile: CheckedPublications.With(FindingKind.LockedContent, Severity.Note));
    }

    [Fact]
    public void Characters_without_a_glyph_and_fonts_that_go_into_no_document_are_told()
    {
        // The fonts of these tests have no question mark.
        CheckedPublications.Clean().Text(1, Middle, "Clay?").Found(FindingKind.GlyphsMissing)!.Detail.ShouldContain("U+003F");
        OwnFont Font(FontEmbedding embedding) => new()
        {
            Id = 0,
            Name = "x.ttf",
            Family = "Kilnhand",
            Format = "ttf",
            ContentHash = new('c', 64),
            Bytes = 1,
            Embedding = embedding,
            Glyphs = 1,
        };
        Publication In(FontEmbedding embedding) => CheckedPublications.Clean().Do(new AddFonts([Font(embedding)]))
            .Text(1, Middle, "Hand", new() { Family = "Kilnhand" });
        In(FontEmbedding.Restricted).Found(FindingKind.FontNotEmbeddable)!.Subject.ShouldBe("Kilnhand regular");
        In(FontEmbedding.PreviewAndPrint).Found(FindingKind.FontNotEmbeddable).ShouldBeNull();
    }
}
