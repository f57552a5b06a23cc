using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Publications;

namespace Formatum.Core.Tests.Edits;

/// <summary>Named looks: put on, inherited, set over, changed once for all, removed.</summary>
public class NamedLookEditTests
{
    private static readonly Border Line = new(2, Colour.Of("#2f6f4f"));

    private static Publication Begin() => Publication.Create(SetupTests.A4(), 1)
        .Do(new MakeFrame { Page = 1, Box = new(10, 10, 100, 80), Name = "one" })
        .Do(new MakeFrame { Page = 1, Box = new(10, 210, 50, 50), Name = "two", Look = new() { Opacity = 0.5 } });

    private static Frame Named(Publication p, string name) => p.Frames.Values.Single(f => f.Name == name);

    private static int Look(Publication p, string name) => p.Looks.Values.Single(l => l.Name == name).Id;

    private static Publication Framed(Publication p, string name = "Framed", int? on = null) => p.Do(new DefineLook
    {
        Name = name,
        BasedOnId = on,
        Settings = new() { Border = Line, Corners = Corners.Even(CornerKind.Round, 8) },
    });

    [Fact]
    public void A_look_put_on_shows_beneath_what_is_set_on_the_frame_and_cleared_gives_back_what_was()
    {
        var p = Framed(Begin());
        var before = Named(p, "two");
        var put = p.Do(new PutLook([before.Id], Look(p, "Framed")));
        put.LookOf(Named(put, "two")).ShouldBe(new() { Border = Line, Corners = Corners.Even(CornerKind.Round, 8), Opacity = 0.5 });
        put.ShapeOf(Named(put, "two")).ShouldBe(Outline.Rectangle.With(Corners.Even(CornerKind.Round, 8)));
        put.Do(new PutLook([before.Id], null)).Frames.Values.ShouldBe(p.Frames.Values, ignoreOrder: true);
        put.LookOf(put.Do(new PutLook([before.Id], Look(p, "Framed"), ClearSet: true)).Frames[before.Id]).Opacity.ShouldBe(1);
    }

    [Fact]
    public void What_is_changed_on_a_frame_is_set_there_and_only_that_and_can_be_cleared_part_by_part()
    {
        var p = Framed(Begin());
        int one = Named(p, "one").Id, look = Look(p, "Framed");
        p = p.Do(new PutLook([one], look));
        p = p.Do(new ChangeLook([one], new() { Border = _ => null, Shadow = _ => Shadow.Usual }));
        p.Frames[one].Look.ShouldBe(new LookSettings { Border = default(Given<Border>), Shadow = Shadow.Usual });
        p.LookOf(p.Frames[one]).ShouldBe(new() { Corners = Corners.Even(CornerKind.Round, 8), Shadow = Shadow.Usual });
        // The look goes on to decide what is not set there.
        p = p.Do(new DefineLook { LookId = look, Name = "Framed", Settings = new() { Border = Line, Opacity = 0.25 } });
        p.LookOf(p.Frames[one]).ShouldBe(new() { Shadow = Shadow.Usual, Opacity = 0.25 });
        p = p.Do(new OpenLook([one], ["Border"]));
        p.LookOf(p.Frames[one]).Border.ShouldBe(Line);
        p.Do(new OpenLook([one], [])).Frames[one].Look.ShouldBe(LookSettings.Open);
        Should.Throw<EditRefused>(() => p.Do(new OpenLook([one], ["Glow"])));
    }

    [Fact]
    public void A_look_is_made_of_a_frame_with_only_what_is_wanted()
    {
        var p = Begin();
        int one = Named(p, "one").Id;
        p = p.Do(new ChangeLook([one], new() { Border = _ => Line, Background = new(Colour.White), Opacity = 0.7 }));
        var was = p.LookOf(p.Frames[one]);
        p = p.Do(new DefineLook { Name = "Lined", LikeFrameId = one, Settings = new() { Border = Line } });
        p.Frames[one].LookId.ShouldBe(Look(p, "Lined"));
        p.Frames[one].Look.ShouldBe(new LookSettings { Background = Colour.White, Opacity = 0.7 });
        p.LookOf(p.Frames[one]).ShouldBe(was);
    }

    [Fact]
    public void A_look_rests_on_another_and_removed_leaves_all_as_it_looks_or_gives_way()
    {
        var p = Framed(Begin());
        int framed = Look(p, "Framed");
        p = p.Do(new DefineLook { Name = "Faint", BasedOnId = framed, Settings = new() { Opacity = 0.3, Corners = default(Given<Corners>) } });
        int faint = Look(p, "Faint"), one = Named(p, "one").Id, two = Named(p, "two").Id;
        p = p.Do(new PutLook([one], faint)).Do(new PutLook([two], framed));
        p.LookOf(p.Frames[one]).ShouldBe(new() { Border = Line, Opacity = 0.3 });
        LookCascade.Followers(p, framed).Select(f => f.Id).ShouldBe([one, two]);
        LookCascade.LookSaying(p, faint, LookSettings.All[0])!.Name.ShouldBe("Framed");

        var kept = p.Do(new RemoveLook(framed, KeepSettings: true));
        foreach (int id in new[] { one, two }) kept.LookOf(kept.Frames[id]).ShouldBe(p.LookOf(p.Frames[id]));
        kept.Looks.Keys.ShouldBe([faint]);
        var stood = p.Do(new RemoveLook(faint, InsteadId: framed));
        stood.LookOf(stood.Frames[one]).ShouldBe(new() { Border = Line, Corners = Corners.Even(CornerKind.Round, 8) });
        Should.Throw<EditRefused>(() => p.Do(new RemoveLook(framed, framed)));
        Should.Throw<EditRefused>(() => p.Do(new RemoveLook(framed, faint)));
        Should.Throw<EditRefused>(() => p.Do(new DefineLook { LookId = framed, Name = "Framed", BasedOnId = faint }));
    }

    [Fact]
    public void Removed_as_it_looks_every_frame_looks_as_it_did()
    {
        var parts = Gen.Select(Gen.Bool, Gen.Bool, Gen.Int[0, 3], Gen.Int[0, 3]).Select((border, shadow, opacity, corners) => new LookSettings
        {
            Border = border ? Line with { Width = 1 + opacity } : opacity == 1 ? default(Given<Border>) : null,
            Shadow = shadow ? Shadow.Usual : corners == 1 ? default(Given<Shadow>) : null,
            Opacity = opacity == 0 ? null : 1.0 / opacity,
            Corners = corners == 0 ? null : Corners.Even((CornerKind)corners, 5),
        });
        Gen.Select(parts, parts, parts, Gen.Int[0, 2]).Sample((root, leaf, own, instead) =>
        {
            var p = Begin().Do(new DefineLook { Name = "root", Settings = root }).Do(new DefineLook { Name = "other", Settings = own });
            p = p.Do(new DefineLook { Name = "leaf", BasedOnId = Look(p, "root"), Settings = leaf });
            int one = Named(p, "one").Id, two = Named(p, "two").Id;
            p = p.Do(new PutLook([one], Look(p, "leaf"))).Do(new PutLook([two], Look(p, "root")));
            p = p.Do(new GiveLook([one], own, Look(p, "leaf")));
            int gone = Look(p, instead == 0 ? "leaf" : "root");
            var after = p.Do(new RemoveLook(gone, instead == 2 ? Look(p, "other") : null, KeepSettings: true));
            foreach (int id in new[] { one, two }) after.LookOf(after.Frames[id]).ShouldBe(p.LookOf(p.Frames[id]));
        }, iter: 500);
    }

    [Fact]
    public void The_palette_reaches_named_looks()
    {
        var p = Begin();
        int cyan = p.Colours.Values.Single(c => c.Name == "Cyan").Id, one = Named(p, "one").Id;
        p = p.Do(new DefineLook { Name = "Blue", Settings = new() { Background = new NamedColour(cyan) } });
        p = p.Do(new PutLook([one], Look(p, "Blue")));
        var use = ColourUse.Of(p, cyan);
        (use.Looks.Single().Name, use.Frames.Single().Id).ShouldBe(("Blue", one));
        ColourUse.Ids(p).ShouldContain(cyan);
        p = p.Do(new RemoveColours([cyan]));
        p.LookOf(p.Frames[one]).Background.ShouldBe(new CmykColour(1, 0, 0, 0));
        p.Frames[one].Look.IsOpen.ShouldBeTrue();
    }

    [Fact]
    public void Frames_of_a_page_follow_the_look_of_their_master_and_copies_elsewhere_keep_what_it_says()
    {
        var p = Framed(Begin());
        int one = Named(p, "one").Id, look = Look(p, "Framed");
        p = p.Do(new PutLook([one], look));
        var elsewhere = Publication.Create(SetupTests.A4(), 1).Do(new PasteFrames(p, [one], 0, null));
        var pasted = elsewhere.Frames.Values.Single();
        elsewhere.Looks[pasted.LookId!.Value].Name.ShouldBe("Framed", "the named look comes along");
        elsewhere.LookOf(pasted).ShouldBe(p.LookOf(p.Frames[one]));
        elsewhere.Do(new PasteFrames(p, [one], 0, null)).Looks.Count.ShouldBe(1, "and is known again");
        var beside = p.Do(new PasteFrames(p, [one], 0, null));
        beside.Frames.Values.Count(f => f.LookId == look && f.Look.IsOpen).ShouldBe(2);
        p.Frames[one].Follows(p.Frames[one] with { LookId = null }).ShouldBeFalse();
    }

    private static readonly Wrap Boxed = new() { Around = WrapAround.Box, Distance = new(6, 6, 6, 6) };

    [Fact]
    public void A_look_says_how_text_keeps_clear_and_what_is_set_on_a_frame_stands_over_it()
    {
        var p = Begin();
        int one = Named(p, "one").Id;
        p = p.Do(new DefineLook { Name = "Set off", Settings = new() { Wrap = Boxed } }).Do(new PutLook([one], p.NextId));
        p.WrapOf(p.Frames[one]).ShouldBe(Boxed);
        p.WrappedFrames.Select(f => f.Id).ShouldBe([one]);
        var nearer = p.Do(new ChangeFrames { FrameIds = [one], Wrap = new() { Distance = new() { Top = 2 } } });
        nearer.WrapOf(nearer.Frames[one]).ShouldBe(Boxed with { Distance = new(2, 6, 6, 6) });
        var off = p.Do(new ChangeFrames
        {
            FrameIds = [one],
            Wrap = new()
            {
                Around = WrapAround.None,
                Distance = new() { Top = 0, Right = 0, Bottom = 0, Left = 0 }
            }
        });
        off.WrapOf(off.Frames[one]).ShouldBe(Wrap.Off);
        off.WrappedFrames.ShouldBeEmpty("not at all is set on it, over what the look says");
        var cleared = off.Do(new OpenLook([one], ["Wrap"]));
        (cleared.Frames[one].Wrap, cleared.WrapOf(cleared.Frames[one])).ShouldBe((null, Boxed));
        nearer.Do(new OpenLook([one], [])).Frames[one].Wrap.ShouldBeNull();
        // Made of a frame, the look takes over what the frame had of its own.
        var like = Begin();
        like = like.Do(new ChangeFrames { FrameIds = [one], Wrap = new() { Around = WrapAround.Outline } });
        like = like.Do(new DefineLook { Name = "Like it", LikeFrameId = one, Settings = new() { Wrap = like.WrapOf(like.Frames[one]) } });
        (like.Frames[one].Wrap, like.WrapOf(like.Frames[one]).Around).ShouldBe((null, WrapAround.Outline));
        // Where no look says anything of it, it is no part of a look, and stays.
        var own = Begin();
        own = own.Do(new ChangeFrames { FrameIds = [one], Wrap = new() { Around = WrapAround.Outline } }).Do(new OpenLook([one], []));
        own.Frames[one].Wrap!.Around.ShouldBe(WrapAround.Outline);
        Should.Throw<EditRefused>(() => p.Do(new DefineLook { Name = "x", Settings = new() { Wrap = Boxed with { Distance = new(-1, 0, 0, 0) } } }));
    }

    [Fact]
    public void Frames_take_the_look_that_their_rule_names_and_follow_when_it_names_another()
    {
        var p = Framed(Begin());
        int one = Named(p, "one").Id, two = Named(p, "two").Id, framed = Look(p, "Framed");
        p = p.Do(new DefineLook { Name = "Other" }).Do(new DefineRule { Name = "Root", LookId = framed });
        p = p.Do(new DefineRule { Name = "Shot", BasedOnId = p.Rules.Keys.Single() });
        int root = p.Rules.Values.Single(r => r.Name == "Root").Id, shot = p.Rules.Values.Single(r => r.Name == "Shot").Id, other = Look(p, "Other");
        p = p.Do(new PutLook([two], other)).Do(new ChangeFrames { FrameIds = [one, two], RuleId = new(shot) });
        (p.Frames[one].LookId, p.Frames[two].LookId).ShouldBe((framed, other), "one that has a look keeps it");
        p.Do(new ChangeFrames { FrameIds = [one], RuleId = new(null) }).Frames[one].LookId.ShouldBe(framed, "and the look stays when the rule goes");
        p.Do(new PutLook([one], null)).Do(new ChangeFrames { FrameIds = [one], Name = "n" }).Frames[one].LookId.ShouldBeNull("none is as good a choice");
        var made = p.Do(new MakeFrame { Page = 1, Box = new(0, 0, 9, 9), RuleId = shot, Name = "new" });
        Named(made, "new").LookId.ShouldBe(framed);

        var third = p.Do(new DefineLook { Name = "Third" });
        int next = Look(third, "Third");
        third = third.Do(new DefineRule { RuleId = root, Name = "Root", LookId = next });
        (third.Frames[one].LookId, third.Frames[two].LookId).ShouldBe((next, other));
        third.Do(new DefineRule { RuleId = root, Name = "Root" }).Frames[one].LookId.ShouldBeNull();
        var gone = third.Do(new RemoveLook(next, framed));
        (gone.Rules[root].LookId, gone.Frames[one].LookId).ShouldBe((framed, framed));
        third.Do(new RemoveLook(next)).Rules[root].LookId.ShouldBeNull();
        Should.Throw<EditRefused>(() => p.Do(new DefineRule { Name = "x", LookId = 999 })).Errors[0].Field.ShouldBe("lookId");
    }

    [Fact]
    public void What_cannot_be_is_refused_by_name()
    {
        var p = Framed(Begin());
        int one = Named(p, "one").Id, look = Look(p, "Framed");
        void Refused(Edit edit, string field) => Should.Throw<EditRefused>(() => edit.On(p)).Errors[0].Field.ShouldBe(field);
        Refused(new DefineLook { Name = " " }, "name");
        Refused(new DefineLook { Name = "framed" }, "name");
        Refused(new DefineLook { Name = new('x', 101) }, "name");
        Refused(new DefineLook { Name = "x", BasedOnId = 999 }, "basedOnId");
        Refused(new DefineLook { LookId = look, Name = "Framed", BasedOnId = look }, "basedOnId");
        Refused(new DefineLook { Name = "x", Settings = new() { Border = Line with { Width = -1 } } }, "look.border.width");
        Refused(new DefineLook { Name = "x", Settings = new() { Background = new NamedColour(999) } }, "look");
        Refused(new PutLook([one], 999), "lookId");
        Refused(new PutLook([], look), "frame");
        Refused(new ChangeFrames { FrameIds = [one], LookId = new(999) }, "lookId");
    }
}
