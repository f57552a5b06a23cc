using System.Collections.Immutable;
using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using CsCheck;
using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Imaging;
using Formatum.Output.Bundles;
using Formatum.Testing;

namespace Formatum.Output.Tests;

public sealed class BundleTests : IDisposable
{
    private static readonly DateTimeOffset At = new(2026, 3, 1, 9, 30, 0, TimeSpan.Zero);

    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static readonly NamedStyle[] Styles =
    [
        new() { Id = 50, Kind = StyleKind.Paragraph, Name = "Body", Settings = new() { Family = "Spectral", Bold = true, Italic = true, Leading = 0 } },
        new() { Id = 51, Kind = StyleKind.Paragraph, Name = "Price list", BasedOnId = 50, Settings = new() { Tabs = new([new(120.5, TabAlignment.Decimal,
            ".")]),
            KeepWithNext = true, Orphans = 2, List = ListKind.Number, BreakBefore = BreakBefore.Frame, LineBelow = 0.5 } },
        new() { Id = 52, Kind = StyleKind.Character, Name = "Old price", Settings = new() { StrikeThrough = true, Figures = FigureStyle.OldStyle } },
    ];

    private static readonly FrameText Styled = new([new Paragraph { StyleId = 51, Runs = [new("Kr\u00fcge\t"), new("12.50", 52) { Set = new() { Tracking = 5,
        Position = TextPosition.Superscript, Case = TextCase.Capitals } }], Set = new() { Alignment = TextAlignment.Centre } }, new("", TextStyle.Usual)]);

    /// <summary>A publication with every property of every part set to something that is not its usual value.</summary>
    private Publication Everything(bool styles = true)
    {
        var mug = _shop.Quarters("mug ü \"1\".jpg", 300, 200, 240, 6) with
        {
            Id = 10,
            OtherNames = ["cup.jpg"],
            Title = "Mug",
            Caption = "A mug, \u201cblue\u201d",
            Credit = "The Kiln Post",
            Subject = new(0.25, 1),
            SuggestedSubject = new(1.0 / 3, 0.1),
            Contour = new(0.25, [[new(0, 0.5), new(1, 0.5), new(0.1, 1)]])
        };
        var jug = _shop.Quarters("jug.png", 90, 120) with { Id = 11 };
        var style = new TextStyle
        {
            Family = "Spectral",
            Bold = true,
            Italic = true,
            Size = 11.5,
            Leading = 14,
            Colour = Colour.Of("#2f6f4f"),
            Alignment = TextAlignment.Justified,
            SpaceAfter = 3
        };
        var settings = ResolvedFit.Default.ToSettings() with
        {
            Fit = FitKind.FillOrFit,
            Rotation = 12.5,
            FlipX = true,
            Limits = LimitAction.Hold,
            StaysFitted = false
        };
        Frame Framed(int id, Outline outline) => new() { Id = id, PageId = 2, Box = new(10.1, 20, 100, 80), Outline = outline };
        return PublicationCheck.Assemble(70,
        [
            Workshop.A4(facing: true) with { Edition = "No. 12", BindsRight = true, FirstFolio = 3, Bleed = 9, BaselineStep = 14, BaselineStart = 3.5,
            Margins = new(20, 21, 22, 23),
                Columns = new(3, 11.3), Unit = LengthUnit.Pica, AssumedPpi = 96, PrintPpi = 250, FloorPpi = 120, SuggestSubjects = true, DefaultRuleId = 20,
                    DefaultStyleId = styles ? 50 : null },
            new PageOrder([2, 1]),
            new Page(1) { MasterId = 40 },
            new Page(2) { Guides = [new(true, 33.3), new(false, 44, true)] },
            mug,
            jug,
            new FittingRule { Id = 20, Name = "Base" },
            new FittingRule { Id = 21, Name = "Product shot", Description = "As the studio sends them", BasedOnId = 20, Settings = settings, LookId = 60 },
            Framed(30, Outline.Rectangle) with { Name = "Cover", ImageId = 10, RuleId = 21, Own = new() { AlignX = 0.1 },
                Recrop = new(1.5, new(0.2, 0.3), 1.4, 7), Held = new(new(100, 0, 3, 80, 0.1, 1e-17), FitKind.Width), Angle = 15, Depth = 4, Locked = true,
                Hidden = true, GroupId = 30, Look = new Look { Border = new(0.5, new NamedColour(57)) { Kind = BorderKind.Dashed, Place = BorderPlace.Outside,
                    Dashes = new([6, 3, 1]), Join = LineJoin.Round,
                End = LineEnd.Square, Sides = Sides.Top | Sides.Left, Second = new(1, 2, new NamedColour(58)), Third = new(0, 0.25) },
                Corners = new(CornerKind.Scoop, 1, 2, 3, 4), Background = Colour.Of("#abcdef"), Opacity = 0.25, PictureOpacity = 0.75,
                BackgroundOpacity = 0.5, Blend = Blend.ColorBurn,
                Shadow = new(1, -2, 3.5, new GreyColour(0.7), 0.125), InnerShadow = new(-1, 2, 0, new NamedColour(58), 0.5), SoftEdge = 12.5,
                Treatment = new() { Grey = new(0.5, 0.4, 0.3) { Yellow = 1.5, Cyan = -0.5, Magenta = 0 }, Saturation = 2, Brightness = 0.1, Contrast = -0.2,
                    Gamma = 1.5, Invert = true,
                    Sharpen = new(2.5, 0.5), Blur = 3.25, Warmth = 0.5, Black = 0.1, White = 0.75, Tint = new(new NamedColour(57), 0.25),
                    Inks = new(new NamedColour(58), Colour.White), IsOff = true } } },
            Framed(31, Outline.Ellipse) with { GroupId = 30, ImageId = 11, LookId = 61, Look = new() { Border = default(Given<Border>) } },
            Framed(32, Outlines.Polygon(5)),
            Framed(33, new PathOutline([new(new(0, 0), new(-0.1, 0.2)), new(new(1, 0)), new(new(0.5, 1), null, new(0.2, 1.2))])),
            Framed(34, Outline.Rectangle) with { Area = new() { Columns = 2, Inset = new(1, 2, 3, 4), Vertical = VerticalPlace.Middle, IgnoresWrap = true,
                Balanced = true, RunsOn = true },
                Wrap = new() { Around = WrapAround.Outline, Distance = new(5, 6, 7, 8), Sides = WrapSides.Wider }, StoryId = 36 },
            new Story { Id = 36, FrameIds = [34], Text = styles ? Styled : new([new("Kr\u00fcge & <Becher>\u2028f\u00fcr zwei", style), new("",
                TextStyle.Usual)]) },
            .. styles ? Styles : [],
            new PaletteColour { Id = 57, Name = "Moss", Colour = new CmykColour(0.58, 0, 0.29, 0.56), IsSpot = true },
            new PaletteColour { Id = 58, Name = "Plum & <b>", Colour = Colour.Of("#7a3b69") },
            new OwnFont { Id = 59, Family = "Slip", Bold = true, Name = "slip.otf", Format = "otf", ContentHash = new('a', 64), Bytes = 1000,
                Embedding = FontEmbedding.PreviewAndPrint, WholeOnly = true, Glyphs = 12, Licence = "Its own" },
            new NamedLook { Id = 60, Name = "Framed", Settings = new Look { Border = new(2, new NamedColour(57)), Shadow = Shadow.Usual } },
            new NamedLook { Id = 61, Name = "Framed, flat", BasedOnId = 60, Settings = new() { Shadow = default(Given<Shadow>), Opacity = 1,
                Wrap = new() { Around = WrapAround.Contour, Distance = new(1, 2, 3, 4), Sides = WrapSides.End } } },
            new MasterPage { Id = 40, Name = "Product \u201cpage\u201d", VersoId = 41, RectoId = 42 },
            new Page(41) { Guides = [new(false, 12)] },
            new Page(42),
            Framed(43, Outline.Rectangle) with { PageId = 42, Name = "Picture" },
            Framed(44, Outline.Rectangle) with { PageId = 42, StoryId = 45 },
            new Story { Id = 45, FrameIds = [44], Text = new([new("{page}", style)]) },
            Framed(35, Outline.Ellipse) with { PageId = 1, MasterFrameId = 43 },
            new Tray([11, 10]),
        ]);
    }

    private static string Json(Publication publication, IReadOnlyDictionary<int, string>? files = null)
    {
        using var stream = new MemoryStream();
        BundleJson.Write(publication, files ?? new Dictionary<int, string>(), stream);
        return Encoding.UTF8.GetString(stream.ToArray());
    }

    private static Publication Read(string json) => BundleJson.Read(Encoding.UTF8.GetBytes(json)).Publication;

    private async Task<string> WrittenAsync(Publication publication, string name = "bundle.zip")
    {
        await using var file = File.Create(_shop.Folder[name]);
        await BundleWriter.WriteAsync(publication, _shop.Previews, new(_shop.Folder["fonts"]), At, file);
        return file.Name;
    }

    private static BundleReader Opened(string path) => BundleReader.Open(path, new PictureLimits());

    /// <summary>Makes a ZIP of entries, as somebody might by hand.</summary>
    private string Zipped(params (string Name, string Content)[] entries)
    {
        string path = _shop.Folder[$"{Guid.NewGuid():n}.zip"];
        using var zip = ZipFile.Open(path, ZipArchiveMode.Create);
        foreach (var (name, content) in entries)
        {
            using var entry = zip.CreateEntry(name).Open();
            entry.Write(Encoding.UTF8.GetBytes(content));
        }
        return path;
    }

    /// <summary>Many small lists take many times their size in memory: they are counted before they are read. Half a character is no text.</summary>
    [Fact]
    public void Lists_without_end_and_halves_of_characters_are_refused_in_words()
    {
        string lists = string.Join(',', Enumerable.Repeat("[]", 3_000_001));
        string json = $"{{\"format\":\"formatum-publication\",\"version\":11,\"pages\":[{lists}]}}";
        long before = GC.GetAllocatedBytesForCurrentThread();
        Should.Throw<BadBundle>(() => Read(json)).Message.ShouldContain("lists and objects");
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(100L << 20);
        string half = Json(_shop.Sampler()).Replace("o1.jpg", "o\\ud800.jpg", StringComparison.Ordinal);
        Should.Throw<BadBundle>(() => Read(half)).Message.ShouldContain("half of a character");
    }

    private static string Refused(string path) => Should.Throw<BadBundle>(() => Opened(path).Dispose()).Message;

    [Fact]
    public void What_is_read_is_what_was_written_and_written_again_gives_the_same_bytes()
    {
        foreach (var publication in new[] { Everything(), _shop.Sampler(), Publication.Create(Workshop.A4(), 3) })
        {
            string json = Json(publication);
            var read = Read(json);
            read.Parts.Select(Known).OrderBy(p => p.Key.ToString()).ShouldBe(publication.Parts.Select(Known).OrderBy(p => p.Key.ToString()));
            Json(read).ShouldBe(json);
        }
        // A bundle says nothing of where files lie on this machine, nor when they were last changed there.
        static Part Known(Part part) => part is LinkedImage image ? image with { Path = "", Modified = default, OtherNames = [] } : part;
        Json(Everything()).ShouldNotContain(_shop.Folder.Path);
        Read(Json(Everything())).Images[10].OtherNames.ShouldBe(["cup.jpg"]);
    }

    /// <summary>Against ajv, an independent validator of JSON Schema 2020-12; strict, so that a mistake in the schema itself fails too.</summary>
    [Fact]
    public void The_published_schema_describes_what_is_written_and_nothing_else()
    {
        var everything = JsonNode.Parse(Json(Everything(), new Dictionary<int, string> { [10] = "images/10-mug.jpg" }))!;
        string[] parts = ["setup", "pages/0", "pages/0/guides/0", "rules/1", "rules/1/settings", "images/0", "frames/0", "frames/0/recrop",
            "frames/0/held/matrix", "stories/0", "stories/0/text/paragraphs/0", "stories/0/text/paragraphs/0/runs/1",
            "stories/0/text/paragraphs/0/runs/1/set", "images/0/contour", "styles/1", "styles/1/settings", "styles/1/settings/tabs/stops/0",
            "frames/4/area", "frames/4/area/inset", "frames/4/wrap", "frames/4/wrap/distance", "frames/0/look/treatment", "frames/0/look/treatment/grey",
                "frames/0/look/treatment/inks", "colours/0",
            "colours/0/colour", "fonts/0"];
        var withMore = parts.Select(part =>
        {
            var more = everything.DeepClone();
            At(more, part)["colourOfTheMoon"] = "pale";
            return more;
        }).ToList();
        var found = Validated([everything, JsonNode.Parse(Json(_shop.Sampler()))!, .. withMore]);
        found[..2].ShouldBe(["valid", "valid"]);
        found[2..].ShouldAllBe(f => f.Contains("additional properties", StringComparison.Ordinal));
        foreach (var more in withMore) Should.Throw<BadBundle>(() => Read(more.ToJsonString()));

        static JsonNode At(JsonNode root, string path) => path.Split('/').Aggregate(root, (node, step) => int.TryParse(step, out int i) ? node[i]!
            : node[step]!);
    }

    private string[] Validated(IEnumerable<JsonNode> documents)
    {
        string file = _shop.Folder["checked.json"], schema = _shop.Folder["schema.json"];
        File.WriteAllText(file, new JsonArray([.. documents.Select(d => d.DeepClone())]).ToJsonString());
        using (var written = File.Create(schema))
        using (var published = BundleWriter.SchemaFile()) published.CopyTo(written);
        string root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "Formatum.slnx"))) root = Path.GetDirectoryName(root)!;
        return Tool.Run("node", "-e", """
            const Ajv = require(process.argv[1] + '/node_modules/ajv/dist/2020').default;
            const read = path => JSON.parse(require('fs').readFileSync(path, 'utf8'));
            const check = new Ajv({ strict: true, strictTypes: false }).compile(read(process.argv[2]));
            for (const one of read(process.argv[3])) console.log(check(one) ? 'valid' : check.errors.map(e => e.message).join('; '));
            """, root, schema, file).Trim().Split('\n');
    }

    [Fact]
    public async Task Originals_fonts_schema_and_report_come_along_unchanged()
    {
        var publication = Everything();
        string path = await WrittenAsync(publication);
        Tool.Run("unzip", "-tq", path).ShouldContain("No errors");
        Tool.Run("unzip", "-q", path, "-d", _shop.Folder["out"]);
        File.ReadAllBytes(_shop.Folder["out/images/10-mug ü -1-.jpg"]).ShouldBe(File.ReadAllBytes(publication.Images[10].Path));
        File.ReadAllBytes(_shop.Folder["out/images/11-jug.png"]).ShouldBe(File.ReadAllBytes(publication.Images[11].Path));
        Directory.GetFiles(_shop.Folder["out/fonts"]).Select(Path.GetFileName).ShouldBe(["Spectral bold-italic.ttf"]);
        File.Exists(_shop.Folder["out/publication.schema.json"]).ShouldBeTrue();
        string report = File.ReadAllText(_shop.Folder["out/report.txt"]);
        report.ShouldContain("Bundle of 2026-03-01 09:30 UTC");
        report.ShouldContain("Placeholder empty: 3\n  page 3, Frame 32\n  page 3, Frame 33\n  page 4, Frame 35");
        report.ShouldContain("mug ü \"1\".jpg: JPEG, RGB, 300 x 200 px");

        using var bundle = Opened(path);
        bundle.UnpackFile(10, _shop.Folder["again"]);
        File.ReadAllBytes(_shop.Folder["again"]).ShouldBe(File.ReadAllBytes(publication.Images[10].Path));
    }

    [Fact]
    public async Task A_file_that_changed_comes_as_it_is_and_one_that_is_missing_as_its_preview()
    {
        var publication = Everything();
        File.AppendAllText(publication.Images[10].Path, "edited");
        File.Delete(publication.Images[11].Path);
        using var bundle = Opened(await WrittenAsync(publication));
        (bundle.HasFileOf(10), bundle.HasFileOf(11)).ShouldBe((true, false));
        bundle.UnpackFile(10, _shop.Folder["a"]);
        File.ReadAllText(_shop.Folder["a"]).ShouldEndWith("edited");
        bundle.TryUnpackPreview(publication.Images[10], _shop.Folder["b"]).ShouldBeTrue();
        bundle.TryUnpackPreview(publication.Images[11], _shop.Folder["c"]).ShouldBeTrue();

        // A borrowed preview shows what is missing, and gives way to the picture's own.
        var elsewhere = new PreviewStore(_shop.Folder["elsewhere"]);
        elsewhere.Borrow(_shop.Folder["c"], publication.Images[11].ContentHash);
        elsewhere.Find(publication.Images[11].ContentHash, 240).ShouldNotBeNull();
        using var found = TestPictures.Quarters(90, 120);
        var image = new PictureReader(new(), elsewhere).Read(TestPictures.Save(found, _shop.Folder["jug.png"], 150), "jug.png");
        image.ContentHash.ShouldBe(publication.Images[11].ContentHash);
        Path.GetFileName(elsewhere.Find(image.ContentHash, 240)!).ShouldNotContain("borrowed");
    }

    [Fact]
    public void A_bundle_of_an_older_version_is_brought_up_to_date()
    {
        var today = JsonNode.Parse(Json(Everything(styles: false)))!;
        var second = today.DeepClone();
        second["version"] = 2;
        // Until then a frame held its text itself; its story then bears the frame's number.
        foreach (var story in second["stories"]!.AsArray().ToList())
        {
            var frame = second["frames"]!.AsArray().Single(f => (int)f!["id"]! == (int)story!["frameIds"]![0]!)!.AsObject();
            frame.Remove("storyId");
            frame["text"] = InOneStyle(story!["text"]!);
            var now = today["stories"]!.AsArray().Single(s => (int)s!["id"]! == (int)story["id"]!)!;
            now["id"] = frame["id"]!.DeepClone();
            today["frames"]!.AsArray().Single(f => (int)f!["id"]! == (int)frame["id"]!)!["storyId"] = frame["id"]!.DeepClone();
        }
        second.AsObject().Remove("stories");
        string expected = Json(Read(today.ToJsonString()));
        // In the third, stories were of their own, each paragraph of one style.
        var third = today.DeepClone();
        third["version"] = 3;
        foreach (var story in third["stories"]!.AsArray()) story!["text"] = InOneStyle(story["text"]!);
        Json(Read(third.ToJsonString())).ShouldBe(expected);
        Json(Read(second.ToJsonString())).ShouldBe(expected);
        string first = second.ToJsonString().Replace("\"version\":2", "\"version\":1", StringComparison.Ordinal)
            .Replace("\"background\"", "\"tone\"", StringComparison.Ordinal);
        first.ShouldContain("\"tone\":\"#abcdef\"");
        Json(Read(first)).ShouldBe(expected);
    }

    /// <summary>A text as it was written before characters were set in runs.</summary>
    private static JsonObject InOneStyle(JsonNode text) => new()
    {
        ["paragraphs"] = new JsonArray([.. text["paragraphs"]!.AsArray().Select(p => new JsonObject
        {
            ["text"] = string.Concat(p!["runs"]!.AsArray().Select(r => (string)r!["text"]!)),
            ["style"] = p["set"]!.DeepClone(),
        })])
    };

    [Theory]
    [InlineData("../../etc/evil")]
    [InlineData("/etc/evil")]
    [InlineData("images/../../evil")]
    [InlineData("images\\..\\evil")]
    [InlineData("C:/evil")]
    public void A_path_that_climbs_is_refused(string name) => Refused(Zipped(("publication.json", Json(Publication.Create(Workshop.A4(), 1))), (name, "x")))
        .ShouldContain("leads out of it");

    [Fact]
    public async Task What_is_no_whole_bundle_is_refused_with_its_reason()
    {
        string plain = Json(Publication.Create(Workshop.A4(), 1));
        File.WriteAllText(_shop.Folder["text.zip"], "not a ZIP");
        Refused(_shop.Folder["text.zip"]).ShouldContain("damaged or cut short");
        Refused(Zipped(("mug.jpg", "x"))).ShouldContain("no publication.json at its top");
        Refused(Zipped(("publication.json", "[]"))).ShouldContain("not an object");
        Refused(Zipped(("publication.json", "{\"format\":\"x\"}"))).ShouldContain("not a bundle of Formatum");
        Refused(Zipped(("publication.json", plain.Replace($"\"version\": {BundleJson.Version}", $"\"version\": {BundleJson.Version + 1}",
            StringComparison.Ordinal))))
            .ShouldContain("written by a newer Formatum");
        Refused(Zipped(("publication.json", plain), ("publication.json", plain))).ShouldContain("twice");
        Refused(Zipped(("publication.json", plain.Replace("\"name\"", "\"name\": \"x\", \"name\"", StringComparison.Ordinal)))).ShouldContain("cannot be used");

        string path = await WrittenAsync(Everything());
        byte[] whole = File.ReadAllBytes(path);
        File.WriteAllBytes(_shop.Folder["cut.zip"], whole[..(whole.Length / 2)]);
        Refused(_shop.Folder["cut.zip"]).ShouldContain("damaged or cut short");
        using (var zip = ZipFile.Open(path, ZipArchiveMode.Update)) zip.GetEntry("images/11-jug.png")!.Delete();
        Refused(path).ShouldContain("images/11-jug.png, the file of jug.png, is not in it");
    }

    [Fact]
    public void What_swells_is_refused_before_it_is_unpacked()
    {
        string path = _shop.Folder["bomb.zip"];
        using (var zip = ZipFile.Open(path, ZipArchiveMode.Create))
        {
            using var entry = zip.CreateEntry("images/1-a.png", CompressionLevel.SmallestSize).Open();
            byte[] nothing = new byte[1 << 20];
            for (int i = 0; i < 64; i++) entry.Write(nothing);
        }
        Refused(path).ShouldContain("would swell");
    }

    [Fact]
    public async Task What_swells_although_its_directory_says_otherwise_is_refused_while_it_is_unpacked()
    {
        string path = await WrittenAsync(Everything());
        byte[] lying = File.ReadAllBytes(path);
        // The uncompressed size is 4 bytes at 24 of a central entry, its name begins at 46 (APPNOTE 4.3.12).
        byte[] name = Encoding.ASCII.GetBytes("images/11-jug.png");
        int central = lying.AsSpan().LastIndexOf(name) - 46;
        lying.AsSpan(central, 4).SequenceEqual("PK\x01\x02"u8).ShouldBeTrue();
        BitConverter.ToInt32(lying, central + 24).ShouldBeGreaterThan(100);
        BitConverter.GetBytes(100).CopyTo(lying, central + 24);
        File.WriteAllBytes(path, lying);
        Should.Throw<BadBundle>(() =>
        {
            using var bundle = Opened(path);
            bundle.UnpackFile(11, _shop.Folder["unpacked"]);
        }).Message.ShouldContain("jug.png");
    }

    /// <summary>Whatever a value is changed to, it is refused in words, or the publication can be looked at and worked on.</summary>
    [Fact]
    public void No_changed_value_gets_past_the_checks_and_breaks_something_later()
    {
        string json = Json(Everything());
        int values = Count(JsonNode.Parse(json)!);
        var odd = Gen.OneOfConst("null", "-1", "0", "1e999", "-1e300", "\"\"", "\"x\"", "[]", "{}", "true", "7", "0.5", "2147483647", "\"rectangle\"", "[{}]",
            "\"a\\u0000b\"");
        int taken = 0, refused = 0;
        void Try(int which, string value)
        {
            var root = JsonNode.Parse(json)!;
            int at = which;
            Replace(root, ref at, JsonNode.Parse(value));
            Publication read;
            try
            {
                read = Read(root.ToJsonString());
            }
            catch (BadBundle e)
            {
                e.Message.Length.ShouldBeGreaterThan(20);
                Interlocked.Increment(ref refused);
                return;
            }
            Interlocked.Increment(ref taken);
            foreach (int number in Enumerable.Range(1, read.PageCount))
                SvgWriter.Page(Composer.Compose(read, Spread.At(read, Spread.IndexOfPage(read, number)), Typefaces.All),
                    Spread.At(read, Spread.IndexOfPage(read, number)).Pages.First(), "x", _ => "#");
            Json(Read(Json(read))).ShouldBe(Json(read));
            new MakeFrame { Page = 1, Box = new(0, 0, 10, 10) }.On(read).IsEmpty.ShouldBeFalse();
        }
        Gen.Select(Gen.Int[0, values - 1], odd).Sample(Try, iter: 1500);
        // What is empty or nothing is what most easily passes for something: everywhere.
        foreach (string value in new[] { "{}", "0" }) Parallel.For(0, values, which => Try(which, value));
        taken.ShouldBeGreaterThan(100);
        refused.ShouldBeGreaterThan(500);

        static int Count(JsonNode? node) => node switch
        {
            JsonObject all => all.Sum(p => 1 + Count(p.Value)),
            JsonArray list => list.Sum(n => 1 + Count(n)),
            _ => 0,
        };
        static bool Replace(JsonNode? node, ref int at, JsonNode? by)
        {
            if (node is JsonObject all)
            {
                foreach (string key in all.Select(p => p.Key).ToList())
                {
                    if (at-- == 0)
                    {
                        all[key] = by;
                        return true;
                    }
                    if (Replace(all[key], ref at, by)) return true;
                }
            }
            else if (node is JsonArray list)
            {
                for (int i = 0; i < list.Count; i++)
                {
                    if (at-- == 0)
                    {
                        list[i] = by;
                        return true;
                    }
                    if (Replace(list[i], ref at, by)) return true;
                }
            }
            return false;
        }
    }

    [Fact]
    public async Task A_bundle_with_a_byte_changed_is_refused_or_still_the_same()
    {
        var publication = Everything();
        byte[] whole = File.ReadAllBytes(await WrittenAsync(publication));
        string json = Json(publication, new Dictionary<int, string> { [10] = "images/10-mug ü -1-.jpg", [11] = "images/11-jug.png" });
        var original = publication.Images.ToImmutableDictionary(i => i.Key, i => File.ReadAllBytes(i.Value.Path));
        // The fonts are nearly all of the file and come along for other programs only: most bytes are changed in the pictures before them and in the JSON and
        // the directory after.
        int fonts = whole.AsSpan().IndexOf("fonts/"u8), after = whole.AsSpan().IndexOf("publication.json"u8);
        fonts.ShouldBeInRange(1, after);
        var place = Gen.Frequency((4, Gen.Int[0, fonts - 1]), (4, Gen.Int[after, whole.Length - 1]), (1, Gen.Int[fonts, after]));
        int refused = 0;
        Gen.Select(place, Gen.Byte[1, 255]).Sample((at, flip) =>
        {
            using var folder = new TempFolder();
            byte[] damaged = [.. whole];
            damaged[at] ^= flip;
            File.WriteAllBytes(folder["b.zip"], damaged);
            try
            {
                using var bundle = Opened(folder["b.zip"]);
                foreach (var (id, content) in original)
                {
                    bundle.UnpackFile(id, folder[$"{id}"]);
                    File.ReadAllBytes(folder[$"{id}"]).ShouldBe(content);
                }
                Json(bundle.Publication, bundle.Publication.Images.Keys.ToDictionary(id => id, id => id == 10 ? "images/10-mug ü -1-.jpg"
                    : "images/11-jug.png")).ShouldBe(json);
            }
            catch (BadBundle)
            {
                Interlocked.Increment(ref refused);
            }
        }, iter: 400);
        refused.ShouldBeGreaterThan(100);
    }
}
