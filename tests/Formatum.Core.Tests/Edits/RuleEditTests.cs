using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Core.Tests.Publications;

namespace Formatum.Core.Tests.Edits;

/// <summary>Rules made from frames, removed, put on many frames, and what a change of them touches.</summary>
public class RuleEditTests
{
    /// <summary>Root &lt;- Leaf; two frames with Leaf, one placeholder with Root, one frame without a rule.</summary>
    private static Publication Begin()
    {
        var p = Publication.Create(SetupTests.A4(), 2).Do(new LinkImages([EditTests.Image("a.jpg"), EditTests.Image("b.jpg", 300, 200)]));
        p = p.Do(new DefineRule { Name = "Root", Settings = new() { Fit = FitKind.Fit, InsetTop = 4 } });
        p = p.Do(new DefineRule { Name = "Leaf", Settings = new() { AlignX = 0.1 }, BasedOnId = Rule(p, "Root") });
        int a = p.Images.Values.Single(i => i.Name == "a.jpg").Id, b = p.Images.Values.Single(i => i.Name == "b.jpg").Id;
        p = p.Do(new MakeFrame { Page = 1, Name = "one", Box = new(0, 0, 200, 100), RuleId = Rule(p, "Leaf"), ImageId = a });
        p = p.Do(new MakeFrame { Page = 2, Name = "two", Box = new(0, 0, 100, 200), RuleId = Rule(p, "Leaf"), ImageId = b });
        p = p.Do(new MakeFrame { Page = 2, Name = "empty", Box = new(0, 0, 50, 50), RuleId = Rule(p, "Root") });
        return p.Do(new MakeFrame { Page = 2, Name = "free", Box = new(0, 0, 80, 80), ImageId = a });
    }

    private static int Rule(Publication p, string name) => p.Rules.Values.Single(r => r.Name == name).Id;

    private static Frame FrameNamed(Publication p, string name) => p.Frames.Values.Single(f => f.Name == name);

    [Fact]
    public void A_change_tells_every_frame_it_touches_worst_first()
    {
        var p = Begin();
        var after = p.Do(new DefineRule { RuleId = Rule(p, "Root"), Name = "Root", Settings = new() { Fit = FitKind.Fill } });
        var impact = Impact.Of(p, after);
        impact.Frames.Select(f => f.After.Name).ShouldBe(["two", "one"], ignoreOrder: true);
        impact.Placeholders.ShouldBe(1);
        impact.Frames.Select(f => f.Worse).ShouldBeInOrder(SortDirection.Descending);
        // The narrow frame loses two thirds of its landscape picture, which is far too coarse as well.
        impact.Frames[0].After.Name.ShouldBe("two");
        impact.Frames[0].Will.Coverage.CropLoss.ShouldBe(2.0 / 3, 1e-9);
        impact.Frames[0].Was.Coverage.CropLoss.ShouldBe(0);
        impact.Worsened.ShouldBe(impact.Frames.Count(f => f.Worse > 0.005));
        // Nothing was changed by looking.
        p.FitOf(FrameNamed(p, "one")).Fit.ShouldBe(FitKind.Fit);
        Impact.Of(p, p).Frames.ShouldBeEmpty();
    }

    [Fact]
    public void Whoever_follows_a_rule_is_known_through_children_and_the_default()
    {
        var p = Begin();
        Cascade.Followers(p, Rule(p, "Leaf")).Select(f => f.Name).ShouldBe(["one", "two"], ignoreOrder: true);
        Cascade.Followers(p, Rule(p, "Root")).Select(f => f.Name).ShouldBe(["one", "two", "empty"], ignoreOrder: true);
        p = p.Do(new ChooseDefaultRule(Rule(p, "Leaf")));
        Cascade.Followers(p, Rule(p, "Root")).Count().ShouldBe(4);
        p.FitOf(FrameNamed(p, "free")).ShouldBe(p.FitOfRule(Rule(p, "Leaf")));
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_rule_removed_leaves_its_frames_and_children_another_or_its_settings(bool keep)
    {
        var p = Begin().Do(new DefineRule { Name = "Other", Settings = new() { Fit = FitKind.Stretch, Rotation = 3 } });
        p = p.Do(new ChooseDefaultRule(Rule(p, "Root")));
        var before = p.Frames.Values.ToDictionary(f => f.Id, p.FitOf);
        int other = Rule(p, "Other");
        p = p.Do(new RemoveRule(Rule(p, "Root"), other, keep));
        p.Rules.Values.Single(r => r.Name == "Leaf").BasedOnId.ShouldBe(other);
        FrameNamed(p, "empty").RuleId.ShouldBe(other);
        p.Setup.DefaultRuleId.ShouldBe(other);
        var one = p.FitOf(FrameNamed(p, "one"));
        one.Fit.ShouldBe(keep ? FitKind.Fit : FitKind.Stretch);
        one.Inset.Top.ShouldBe(keep ? 4 : 0);
        if (keep) foreach (var frame in p.Frames.Values) p.FitOf(frame).ShouldBe(before[frame.Id], "Nothing looks different.");
    }

    [Fact]
    public void What_a_removed_rule_had_from_those_beneath_it_and_from_the_default_is_kept_too()
    {
        var p = Begin();
        p = p.Do(new DefineRule { Name = "Ground", Settings = new() { Fit = FitKind.Fit, InsetTop = 4, Limits = LimitAction.Hold } });
        p = p.Do(new DefineRule { Name = "Middle", BasedOnId = Rule(p, "Ground"), Settings = new() { AlignX = 1 } });
        p = p.Do(new ChangeFrames { FrameIds = [FrameNamed(p, "free").Id], RuleId = new(Rule(p, "Middle")) });
        p = p.Do(new ChooseDefaultRule(Rule(p, "Ground")));
        foreach (int removed in new[] { Rule(p, "Middle"), Rule(p, "Ground") })
        {
            var after = p.Do(new RemoveRule(removed, null, KeepSettings: true));
            foreach (var frame in p.Frames.Values) after.FitOf(after.Frames[frame.Id]).ShouldBe(p.FitOf(frame));
            foreach (var rule in after.Rules.Values) after.FitOfRule(rule.Id).Fit.ShouldBe(rule.Name == "Middle" ? FitKind.Fit : after.FitOfRule(rule.Id).Fit);
        }
    }

    [Fact]
    public void A_rule_cannot_stand_in_for_itself_nor_under_its_own_children()
    {
        var p = Begin();
        Should.Throw<EditRefused>(() => new RemoveRule(Rule(p, "Root"), Rule(p, "Root")).On(p)).Errors[0].Field.ShouldBe("instead");
        Should.Throw<EditRefused>(() => new RemoveRule(Rule(p, "Root"), Rule(p, "Leaf")).On(p)).Message.ShouldContain("based on itself");
        Should.Throw<EditRefused>(() => new RemoveRule(777).On(p)).Errors[0].Field.ShouldBe("ruleId");
        Should.Throw<EditRefused>(() => new ChooseDefaultRule(777).On(p)).Errors[0].Field.ShouldBe("ruleId");
    }

    [Fact]
    public void A_rule_made_like_a_frame_takes_its_settings_and_the_frame_looks_as_before()
    {
        var p = Begin();
        p = p.Do(new ChangeFrames { FrameIds = [FrameNamed(p, "one").Id], Set = new() { AlignY = 0.9, Rotation = 7 } });
        var frame = FrameNamed(p, "one");
        var fit = p.FitOf(frame);
        int leaf = Rule(p, "Leaf");
        p = p.Do(new DefineRule
        {
            RuleId = leaf,
            Name = "Leaf",
            BasedOnId = p.Rules[leaf].BasedOnId,
            Settings = frame.Own.Over(p.Rules[leaf].Settings),
            LikeFrameId = frame.Id
        });
        FrameNamed(p, "one").Own.IsOpen.ShouldBeTrue();
        p.FitOf(FrameNamed(p, "one")).ShouldBe(fit);
        p.FitOf(FrameNamed(p, "two")).Rotation.ShouldBe(7);
    }

    [Fact]
    public void Settings_are_cleared_one_by_one_and_all_together_over_several_frames()
    {
        var p = Begin();
        int[] ids = [FrameNamed(p, "one").Id, FrameNamed(p, "two").Id];
        p = p.Do(new ChangeFrames { FrameIds = [.. ids], Set = new() { Fit = FitKind.Fill, Rotation = 9, InsetTop = 1 } });
        p = p.Do(new ChangeFrames { FrameIds = [.. ids], Clear = [FitSetting.Rotation] });
        p.FitOf(FrameNamed(p, "one")).ShouldBe(p.FitOfRule(Rule(p, "Leaf")) with { Fit = FitKind.Fill, Inset = new(1, 0, 0, 0) });
        p = p.Do(new ChangeFrames { FrameIds = [.. ids], ClearSet = true });
        foreach (int id in ids) p.FitOf(p.Frames[id]).ShouldBe(p.FitOfRule(Rule(p, "Leaf")));
    }

    [Fact]
    public void Frames_are_named_by_page_and_by_whether_they_are_filled()
    {
        var p = Begin();
        string[] Names(int? page, FrameFilling which) => [.. FrameScope.FramesIn(p, page, which).Select(id => p.Frames[id].Name)];
        Names(null, FrameFilling.Empty).ShouldBe(["empty"]);
        Names(2, FrameFilling.Filled).ShouldBe(["two", "free"]);
        Names(1, FrameFilling.All).ShouldBe(["one"]);
        Should.Throw<EditRefused>(() => FrameScope.FramesIn(p, 1, FrameFilling.Empty)).Message.ShouldContain("no empty placeholders on page 1");
        Should.Throw<EditRefused>(() => FrameScope.FramesIn(p, 9, FrameFilling.All)).Errors[0].Field.ShouldBe("page");
    }

    [Fact]
    public void A_chain_may_be_fifty_rules_long_and_no_longer()
    {
        var p = Publication.Create(SetupTests.A4(), 1);
        for (int i = 0; i < Cascade.LongestChain; i++)
            p = p.Do(new DefineRule
            {
                Name = $"r{i}",
                BasedOnId = i == 0 ? null : Rule(p, $"r{i - 1}"),
                Settings = i == 0 ? new() { Rotation = 8 }
                : FitSettings.Open
            });
        p.FitOfRule(Rule(p, "r49")).Rotation.ShouldBe(8);
        Should.Throw<EditRefused>(() => new DefineRule { Name = "r50", BasedOnId = Rule(p, "r49") }.On(p)).Errors[0].Field.ShouldBe("basedOnId");
    }

    [Fact]
    public void A_new_publication_begins_with_the_rule_chosen_for_it()
    {
        var p = Publication.Create(SetupTests.A4(), 3, new FittingRule { Id = 99, Name = "House", BasedOnId = 98, Settings = new() { Fit = FitKind.Fit } });
        var rule = p.Rules.Values.Single();
        rule.BasedOnId.ShouldBeNull();
        p.Setup.DefaultRuleId.ShouldBe(rule.Id);
        p.FitOfRule(null).Fit.ShouldBe(FitKind.Fit);
    }

    [Theory]
    [InlineData(double.NaN, "rotation")]
    [InlineData(double.PositiveInfinity, "rotation")]
    [InlineData(4000, "rotation")]
    public void Impossible_settings_are_refused(double rotation, string field)
    {
        var p = Begin();
        Should.Throw<EditRefused>(() => new DefineRule { Name = "Bad", Settings = new() { Rotation = rotation } }.On(p)).Errors[0].Field.ShouldBe(field);
        Should.Throw<EditRefused>(() => new DefineRule
        {
            Name = "Bad",
            Settings = new()
            {
                InsetLeft = 1e9,
                AlignX = -1,
                SmallestPpi = -1,
                LargestCrop = 2,
                LargestEnlargement = double.NaN
            }
        }.On(p)).Errors.Length.ShouldBe(5);
    }
}
