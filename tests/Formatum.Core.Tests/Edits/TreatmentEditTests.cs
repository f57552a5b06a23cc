using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Edits;

public sealed class TreatmentEditTests
{
    private static (Publication Publication, int Frame) Begin()
    {
        var p = Publication.Create(new Setup { Name = "T", PageWidth = 400, PageHeight = 400 }, 1);
        p = p.With(new MakeFrame { Page = 1, Box = new(10, 10, 100, 80) }.On(p));
        return (p, p.Frames.Keys.Single());
    }

    private static Look Changed(Look look, Func<Treatment, Treatment> change) => new LookChange { Treatment = change }.On(look);

    [Fact]
    public void Put_on_and_cleared_the_look_is_as_it_was()
    {
        var grey = Changed(Look.Plain, t => t with { Grey = GreyMix.Usual });
        grey.Treatment!.Works.ShouldBeTrue();
        Changed(grey, t => t with { Grey = null }).ShouldBe(Look.Plain);
        Changed(grey, _ => Treatment.None).ShouldBe(Look.Plain);
        // Put aside, it keeps its figures.
        var aside = Changed(grey, t => t with { IsOff = true });
        (aside.Treatment!.Works, aside.Treatment.Grey).ShouldBe((false, GreyMix.Usual));
        new LookChange { Opacity = 0.5 }.On(grey).Treatment.ShouldBe(grey.Treatment);
    }

    [Fact]
    public void Nothing_done_changes_no_tone()
    {
        var m = Treatment.None.Matrix();
        for (int i = 0; i < 9; i++) m[i].ShouldBe(i % 4 == 0 ? 1 : 0, 1e-12);
        foreach (double tone in new[] { 0, 0.2, 0.5, 1 }) Treatment.None.Curve(tone).ShouldBe(tone, 1e-12);
    }

    /// <summary>Filter Effects 1 gives these rows of "saturate" for 0: grey of 0.213, 0.715, 0.072.</summary>
    [Fact]
    public void Without_saturation_it_is_the_usual_grey()
    {
        var m = new Treatment { Saturation = 0 }.Matrix();
        m.ShouldBe(new Treatment { Grey = GreyMix.Usual }.Matrix(), 1e-12);
    }

    [Theory]
    [InlineData(0.5, 0.5, 0.5)]
    [InlineData(0.25, 0.75, 0.5)]
    [InlineData(1, 1, 1)]
    public void Weights_of_a_grey_are_shares(double r, double g, double b)
    {
        var m = new Treatment { Grey = new(r, g, b) }.Matrix();
        m[..3].Sum().ShouldBe(1, 1e-12);
        m[0].ShouldBe(r / (r + g + b), 1e-12);
    }

    [Fact]
    public void Impossible_treatments_are_refused_with_their_field()
    {
        var (p, frame) = Begin();
        void Refused(Treatment treatment, string field) =>
            Should.Throw<EditRefused>(() => new ChangeLook([frame], new() { Treatment = _ => treatment }).On(p))
                .Errors[0].Field.ShouldBe("look.treatment." + field);
        Refused(new() { Brightness = 1.01 }, "brightness");
        Refused(new() { Contrast = double.NaN }, "contrast");
        Refused(new() { Saturation = -0.1 }, "saturation");
        Refused(new() { Gamma = 0 }, "gamma");
        Refused(new() { Grey = new(4, 0, 0) }, "grey.red");
        Refused(new() { Grey = new(-1, 0.5, 0.5) }, "grey");
        Refused(new() { Inks = new(new CmykColour(2, 0, 0, 0), Colour.White) }, "inks.dark");
        Should.Throw<EditRefused>(() => new ChangeLook([frame], new() { Treatment = _ => new() { Inks = new(new NamedColour(99), Colour.White) } }).On(p))
            .Errors[0]
            .Field.ShouldBe("look");
    }

    [Fact]
    public void The_inks_of_a_picture_follow_the_palette()
    {
        var (p, frame) = Begin();
        int cyan = p.Colours.Values.Single(c => c.Name == "Cyan").Id;
        p = p.With(new ChangeLook([frame], new() { Treatment = t => t with { Inks = new(new NamedColour(cyan), Colour.White) } }).On(p));
        ColourUse.Of(p, cyan).Frames.ShouldHaveSingleItem();
        p = p.With(new RemoveColours([cyan]).On(p));
        p.LookOf(p.Frames[frame]).Treatment!.Inks!.Dark.ShouldBe(new CmykColour(1, 0, 0, 0));
    }
}
