using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Publications;
using Formatum.Core.Tests.Typesetting;

namespace Formatum.Core.Tests.Edits;

/// <summary>The look of frames: border, background, opacity, shadow.</summary>
public class LookEditTests
{
    private static Publication Begin() => Publication.Create(SetupTests.A4(), 1)
        .Do(new MakeFrame { Page = 1, Box = new(10, 10, 100, 80), Name = "one" })
        .Do(new MakeFrame { Page = 1, Box = new(10, 210, 50, 50), Name = "two", Angle = 90 });

    private static Frame Named(Publication p, string name) => p.Frames.Values.Single(f => f.Name == name);

    private static Look Changed(Look look, LookChange change) => change.On(look);

    [Fact]
    public void A_change_leaves_the_rest_of_a_look_as_it_is()
    {
        var look = Changed(Look.Plain, new() { Border = b => (b ?? Border.Usual) with { Width = 2 } });
        look.ShouldBe(new() { Border = new(2, Colour.Of("#000000")) });
        look = Changed(look, new() { Border = b => (b ?? Border.Usual) with { Colour = Colour.Of("#2F6F4F") }, Opacity = 0.5 });
        look.ShouldBe(new() { Border = new(2, Colour.Of("#2f6f4f")), Opacity = 0.5 });
        look = Changed(look, new() { Shadow = s => s ?? Shadow.Usual });
        look.Shadow.ShouldBe(Shadow.Usual);
        Changed(look, new() { Shadow = s => (s ?? Shadow.Usual) with { Blur = 9 } }).Shadow.ShouldBe(Shadow.Usual with { Blur = 9 });
        Changed(look, new() { Shadow = _ => null, Background = new(Colour.Of("#ffffff")) }).ShouldBe(new()
        {
            Border = new(2, Colour.Of("#2f6f4f")),
            Opacity = 0.5,
            Background = Colour.Of("#ffffff")
        });
        Changed(look, new() { Border = _ => null }).Border.ShouldBeNull();
        Changed(Look.Plain, new() { Border = b => (b ?? Border.Usual) with { Colour = Colour.Of("#123456") } }).Border.ShouldBe(new(0.5, Colour.Of("#123456")));
    }

    [Fact]
    public void A_look_is_given_to_others_without_anything_else_of_its_frame()
    {
        var p = Begin();
        int one = Named(p, "one").Id, two = Named(p, "two").Id;
        p = p.Do(new ChangeLook([one], new()
        {
            Border = b => (b ?? Border.Usual) with { Width = 1 },
            Background = new(Colour.Of("#dfe5d8")),
            Shadow = _ => Shadow.Usual
        }));
        var given = p.Do(new GiveLook([two], Named(p, "one").Look));
        Named(given, "two").ShouldBe(Named(p, "two") with { Look = Named(p, "one").Look });
        Named(given, "one").ShouldBe(Named(p, "one"));
    }

    [Fact]
    public void A_shadow_falls_the_same_way_on_the_page_however_its_frame_is_turned()
    {
        var p = Begin();
        var scene = Composer.Compose(p, Spread.At(p, 0), new HalfWide());
        var shadow = new Shadow(3, 1, 0, Colour.Of("#000000"), 1);
        foreach (var frame in scene.Items)
        {
            var onPage = frame.ToSpread.Apply(frame.ShadowFalls(shadow)) - frame.ToSpread.Apply(default);
            (onPage - new Vec(3, 1)).Length.ShouldBe(0, 1e-9);
        }
        scene.Items.Select(f => f.Prints).ShouldBe([false, false]);
        p = p.Do(new ChangeLook([Named(p, "one").Id], new() { Background = new(Colour.Of("#dfe5d8")) }));
        Composer.Compose(p, Spread.At(p, 0), new HalfWide()).Items.Select(f => f.Prints).ShouldBe([true, false], "The background of a placeholder prints.");
    }

    [Fact]
    public void What_cannot_be_is_refused_by_name()
    {
        var p = Begin();
        int one = Named(p, "one").Id;
        void Refused(LookChange change, string field) => Should.Throw<EditRefused>(() => new ChangeLook([one], change).On(p)).Errors[0].Field.ShouldBe(field);
        Refused(new() { Border = b => (b ?? Border.Usual) with { Width = -1 } }, "look.border.width");
        Refused(new() { Border = b => (b ?? Border.Usual) with { Width = double.NaN } }, "look.border.width");
        Refused(new() { Border = b => (b ?? Border.Usual) with { Colour = new CmykColour(0, 2, 0, 0) } }, "look.border.colour");
        Refused(new() { Background = new(new GreyColour(double.NaN)) }, "look.background");
        Refused(new() { Shadow = _ => Shadow.Usual with { Colour = new NamedColour(99) } }, "look");
        Refused(new() { Opacity = 1.01 }, "look.opacity");
        Refused(new() { Shadow = _ => Shadow.Usual with { Blur = -1 } }, "look.shadow.blur");
        Refused(new() { Shadow = _ => Shadow.Usual with { Across = double.PositiveInfinity } }, "look.shadow.across");
        Refused(new() { Shadow = _ => Shadow.Usual with { Strength = 2 } }, "look.shadow.strength");
        Refused(new() { InnerShadow = _ => Shadow.Usual with { Blur = double.NaN } }, "look.innerShadow.blur");
        Refused(new() { SoftEdge = -0.1 }, "look.softEdge");
        Refused(new() { SoftEdge = Look.WidestEdge + 1 }, "look.softEdge");
        Refused(new() { Treatment = t => t with { Blur = Treatment.LargestBlur + 1 } }, "look.treatment.blur");
        Refused(new() { Treatment = t => t with { Sharpen = Sharpening.Usual with { Radius = 0 } } }, "look.treatment.sharpen.radius");
        Refused(new() { Treatment = t => t with { Sharpen = Sharpening.Usual with { Amount = double.PositiveInfinity } } }, "look.treatment.sharpen.amount");
        Should.Throw<EditRefused>(() => new ChangeLook([], new() { Opacity = 1 }).On(p)).Errors[0].Field.ShouldBe("frame");
    }
}
