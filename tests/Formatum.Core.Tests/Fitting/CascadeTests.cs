using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Edits;
using Formatum.Core.Tests.Publications;

namespace Formatum.Core.Tests.Fitting;

public class CascadeTests
{
    private static (Publication, int) Define(Publication p, string name, FitSettings settings, int? basedOn = null)
    {
        p = p.Do(new DefineRule { Name = name, Settings = settings, BasedOnId = basedOn });
        return (p, p.Rules.Values.Single(r => r.Name == name).Id);
    }

    private static Frame FrameWith(Publication p, int? ruleId, FitSettings own) => new()
    {
        Id = 999,
        PageId = p.Order.Ids[0],
        Box = new(0, 0, 10, 10),
        RuleId = ruleId,
        Own = own
    };

    [Fact]
    public void The_nearest_setting_wins_default_then_chain_then_frame()
    {
        var p = Publication.Create(SetupTests.A4(), 1);
        (p, int ground) = Define(p, "Ground", new() { Fit = FitKind.Fit, AlignX = 0, InsetTop = 1, Rotation = 5 });
        (p, int root) = Define(p, "Root", new() { AlignX = 0.2, AlignY = 0.2, InsetTop = 2 });
        (p, int leaf) = Define(p, "Leaf", new() { AlignY = 0.9 }, root);
        p = p.Do(new ChangeSetup(p.Setup with { DefaultRuleId = ground }));

        var fit = p.FitOf(FrameWith(p, leaf, new() { InsetTop = 3 }));
        fit.ShouldBe(ResolvedFit.Default with { Fit = FitKind.Fit, AlignX = 0.2, AlignY = 0.9, Inset = new(3, 0, 0, 0), Rotation = 5 });
        // Clearing what was set on the frame gives what it inherits.
        p.FitOf(FrameWith(p, leaf, FitSettings.Open)).Inset.Top.ShouldBe(2);
        p.FitOf(FrameWith(p, null, FitSettings.Open)).ShouldBe(ResolvedFit.Default with
        {
            Fit = FitKind.Fit,
            AlignX = 0,
            Inset = new(1, 0, 0, 0),
            Rotation = 5
        });
    }

    [Fact]
    public void A_setting_tells_where_it_comes_from_and_can_be_cleared()
    {
        var p = Publication.Create(SetupTests.A4(), 1);
        (p, int rule) = Define(p, "Airy", new() { Fit = FitKind.Fit });
        p = p.Do(new MakeFrame { Page = 1, Box = new(0, 0, 9, 9), RuleId = rule, Own = new() { Fit = FitKind.Stretch } });
        var frame = p.Frames.Values.Single();
        Cascade.SourceOf(p, frame, FitSetting.Fit).SetHere.ShouldBeTrue();
        Cascade.SourceOf(p, frame, FitSetting.Rotation).ShouldBe(default);
        p = p.Do(new ChangeFrames { FrameIds = [frame.Id], ClearSet = true });
        frame = p.Frames.Values.Single();
        Cascade.SourceOf(p, frame, FitSetting.Fit).Rule!.Name.ShouldBe("Airy");
        p.FitOf(frame).Fit.ShouldBe(FitKind.Fit);
    }

    [Fact]
    public void The_order_of_edits_makes_no_difference() => Gen.Shuffle(new[] { 0, 1, 2, 3 }).Sample(order =>
    {
        var p = Publication.Create(SetupTests.A4(), 1);
        (p, int a) = Define(p, "A", FitSettings.Open);
        (p, int b) = Define(p, "B", FitSettings.Open);
        Edit[] edits =
        [
            new DefineRule { RuleId = a, Name = "A", Settings = new() { AlignX = 0.1, Fit = FitKind.Fit } },
            new DefineRule { RuleId = b, Name = "B", Settings = new() { AlignX = 0.7 }, BasedOnId = a },
            new DefineRule { Name = "C", Settings = new() { AlignY = 0.3 } },
            new ChangeSetup(p.Setup with { DefaultRuleId = a }),
        ];
        foreach (int i in order) p = p.Do(edits[i]);
        p.FitOf(FrameWith(p, b, FitSettings.Open)).ShouldBe(ResolvedFit.Default with { AlignX = 0.7, Fit = FitKind.Fit });
    });

    [Fact]
    public void A_chain_that_would_loop_is_refused()
    {
        var p = Publication.Create(SetupTests.A4(), 1);
        (p, int a) = Define(p, "A", FitSettings.Open);
        (p, int b) = Define(p, "B", FitSettings.Open, a);
        (p, int c) = Define(p, "C", FitSettings.Open, b);
        foreach (int basis in new[] { a, b, c })
            Should.Throw<EditRefused>(() => new DefineRule { RuleId = a, Name = "A", BasedOnId = basis }.On(p)).Errors[0].Field.ShouldBe("basedOnId");
    }

    [Fact]
    public void Two_rules_may_not_share_a_name()
    {
        var (p, _) = Define(Publication.Create(SetupTests.A4(), 1), "Product shot", FitSettings.Open);
        Should.Throw<EditRefused>(() => new DefineRule { Name = " product SHOT " }.On(p)).Errors[0].Field.ShouldBe("name");
    }
}
