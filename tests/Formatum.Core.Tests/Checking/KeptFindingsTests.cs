using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Edits;

namespace Formatum.Core.Tests.Checking;

/// <summary>Findings are measured again only where an edit reached: that must never show.</summary>
public sealed class KeptFindingsTests
{
    /// <summary>FORMATUM_RANDOM_EDITS asks for more; 20,000 take a few minutes.</summary>
    private static readonly int Edits = int.TryParse(Environment.GetEnvironmentVariable("FORMATUM_RANDOM_EDITS"), CultureInfo.InvariantCulture, out int more)
        ? more : 300;

    private static double Mm(double mm) => Units.Millimetres(mm);

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void What_is_kept_is_what_would_be_measured_from_new(int seed)
    {
        var random = new Random(seed);
        var profile = CheckedPublications.Offset with { Kinds = [.. Enum.GetValues<FindingKind>().Select(k => new KindSeverity(k, Severity.Note))] };
        var p = Begun();
        var facts = CheckFacts.None;
        var kept = p.Check(facts, profile);
        var before = p;
        int refused = 0;
        for (int i = 0; i < Edits / 3; i++)
        {
            try
            {
                before = p;
                // Now and then somebody takes the last step back.
                p = random.Next(12) == 0 ? before : p.Do(AnyEdit(p, random));
            }
            catch (EditRefused)
            {
                refused++;
            }
            if (random.Next(10) == 0) facts = AnyFacts(p, random);
            kept = kept.After(p, facts);
            var anew = p.Check(facts, profile);
            kept.All.ShouldBe(anew.All, $"seed {seed}, edit {i}");
        }
        refused.ShouldBeLessThan(Edits / 6);
    }

    /// <summary>The same of what is worked out of all frames, and goes on from edit to edit.</summary>
    [Fact]
    public void What_goes_on_from_edit_to_edit_is_what_would_be_worked_out_from_new()
    {
        var random = new Random(4);
        var p = Begun();
        for (int i = 0; i < Edits; i++)
        {
            try
            {
                p = p.Do(AnyEdit(p, random));
            }
            catch (EditRefused)
            {
                // Nothing was changed.
            }
            var anew = Publication.FromParts(p.NextId, p.Parts);
            p.PlacedCounts.OrderBy(c => c.Key).ShouldBe(anew.PlacedCounts.OrderBy(c => c.Key), $"edit {i}");
            p.WrappedFrames.ShouldBe(anew.WrappedFrames, $"edit {i}");
        }
    }

    private static Publication Begun()
    {
        var p = CheckedPublications.Clean(8).Do(new MakeMaster("Run", null)).Linked(
            CheckedPublications.Image("a.jpg", 3000, 2000), CheckedPublications.Image("b.jpg", 500, 400, hash: 'b'),
            CheckedPublications.Image("a.jpg", 6000, 4000, hash: 'c'));
        p = p.Do(new MakeFrame { Page = -1, Box = new(Mm(40), Mm(280), Mm(60), Mm(8)), Text = new([new("{page} of {pages}: {heading}", TextStyle.Usual)]) });
        p = p.Do(new MakeFrame { Page = -2, Box = new(Mm(40), Mm(280), Mm(60), Mm(8)), Text = new([new("Some {page}", TextStyle.Usual)]) });
        p = p.Do(new BasePages([2, 3, 4, 5], p.Masters.Keys.Single()));
        p = p.Do(new DefineStyle { Kind = StyleKind.Paragraph, Name = "Head", Settings = new() { Heading = 1, Size = 14 } });
        p = p.Do(new DefineRule { Name = "Whole", Settings = new() { Fit = FitKind.Fit } });
        return p.Do(new DefineLook { Name = "Ruled", Settings = new() { Border = new Border(0.5, Colour.Of("#803040")) } });
    }

    private static readonly string[] Words = ["clay", "glaze", "kiln {page}", "{hedding}", "a vessel that holds what is poured?", "{heading}", ""];

    private static int AnyFrame(Publication p, Random random) => p.Frames.Keys.Order().ElementAt(random.Next(p.Frames.Count));

    private static int AnyPage(Publication p, Random random) => random.Next(8) == 0 ? -1 - random.Next(2) : 1 + random.Next(p.PageCount);

    private static Box AnyBox(Random random) => new(Mm(random.Next(-20, 200)), Mm(random.Next(-20, 290)), Mm(random.Next(10, 120)), Mm(random.Next(5, 120)));

    private static int AnyImage(Publication p, Random random) => p.Images.Keys.Order().ElementAt(random.Next(p.Images.Count));

    private static Edit AnyEdit(Publication p, Random random)
    {
        var frame = p.Frames[AnyFrame(p, random)];
        ImmutableArray<int> one = [frame.Id];
        return random.Next(22) switch
        {
            0 => new MakeFrame { Page = AnyPage(p, random), Box = AnyBox(random) },
            1 => new MakeFrame { Page = AnyPage(p, random), Box = AnyBox(random), ImageId = AnyImage(p, random) },
            2 => new MakeFrame
            {
                Page = AnyPage(p, random),
                Box = AnyBox(random),
                Text = new([new(Words[random.Next(Words.Length)], p.Styles.Keys.Single()), new(Words[random.Next(Words.Length)], TextStyle.Usual)]),
            },
            3 or 4 or 5 => new PlaceFrames([new(frame.Id, AnyPage(p, random), AnyBox(random))]),
            6 => new RemoveFrames(one),
            7 when !frame.IsText => new ChangeFrames { FrameIds = one, ImageId = new(random.Next(4) == 0 ? null : AnyImage(p, random)) },
            8 when frame.IsText => new WriteText(frame.Id, string.Join(' ', Enumerable.Repeat(Words[random.Next(Words.Length)], random.Next(1, 60)))),
            9 => new ChangeFrames { FrameIds = one, Hidden = !frame.Hidden },
            10 => new ChangeFrames { FrameIds = one, Wrap = new() { Around = random.Next(2) == 0 ? WrapAround.Box : WrapAround.None } },
            11 => new AddPages(1 + random.Next(p.PageCount + 1), 1, random.Next(2) == 0 ? p.Masters.Keys.First() : null),
            12 when p.PageCount > 2 => new RemovePages([1 + random.Next(p.PageCount)]),
            13 => new MovePages([1 + random.Next(p.PageCount)], 1 + random.Next(p.PageCount + 1)),
            14 => new DefineRule
            {
                RuleId = p.Rules.Keys.Single(),
                Name = "Whole",
                Settings = new()
                {
                    Fit = (FitKind)random.Next(3),
                    InsetTop = random.Next(5)
                }
            },
            15 => new ChangeFrames { FrameIds = one, RuleId = new(random.Next(2) == 0 ? null : p.Rules.Keys.Single()) },
            16 => new DefineStyle
            {
                StyleId = p.Styles.Keys.Single(),
                Kind = StyleKind.Paragraph,
                Name = "Head",
                Settings = new() { Heading = 1, Size = random.Next(4, 40) },
            },
            17 => new PutLook(one, random.Next(2) == 0 ? null : p.Looks.Keys.Single()),
            18 => new ChangeSubjects([new(AnyImage(p, random), new(random.NextDouble(), 0.5), null)]),
            19 => new ChangeSetup(p.Setup with { Bleed = Mm(random.Next(1, 5)) }),
            20 when frame.IsText && p.Order.IndexOf(frame.PageId) >= 0 => new RunOnPages(frame.Id, 1, OnNewPages: false),
            21 => new BasePages([1 + random.Next(p.PageCount)], random.Next(2) == 0 ? null : p.Masters.Keys.First()),
            _ => new ChangeFrames { FrameIds = one, Locked = !frame.Locked },
        };
    }

    private static CheckFacts AnyFacts(Publication p, Random random)
    {
        var links = p.Images.Keys.Where(_ => random.Next(3) == 0).ToImmutableDictionary(id => id, _ => (LinkState)random.Next(1, 3));
        return new(links, ImmutableDictionary<int, InkFact>.Empty.Add(p.Order.Ids[random.Next(p.PageCount)], new(random.Next(200, 400), new(10, 10))));
    }

    [Fact]
    public void What_was_let_be_comes_back_when_it_gets_worse()
    {
        var p = CheckedPublications.Clean().Linked(CheckedPublications.Image("vase.jpg", 400, 300)).Placed(new(Mm(40), Mm(40), Mm(80), Mm(60)));
        var found = p.Check().All.Single();
        p = p.Do(new AcceptFindings([new() { Id = 0, Kind = found.Kind, OnKind = found.Part.Kind, OnId = found.Part.Id, Badness = found.Badness, By = "Mo" }]));
        p.Check().Open.ShouldBeEmpty();
        p.Check().All.Single().Accepted!.By.ShouldBe("Mo");
        Publication Sized(double share) => p.Do(new PlaceFrames([new(p.Last().Id, 1, new(Mm(40), Mm(40), Mm(80 * share), Mm(60 * share)))],
            PictureAtSizing.Refitted));
        Sized(0.9).Check().Open.ShouldBeEmpty();
        Sized(1.1).Check().Open.Single().Kind.ShouldBe(FindingKind.BelowLeastPpi);
        p.Do(new UnacceptFindings([.. p.Accepted.Keys])).Check().Open.Count().ShouldBe(1);
    }
}
