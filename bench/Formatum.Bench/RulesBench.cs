using System.Diagnostics;
using System.Globalization;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Storage;
using Microsoft.Data.Sqlite;

namespace Formatum.Bench;

/// <summary>Rules over many frames: resolved and fitted, and changed with all that is stored.</summary>
internal static class RulesBench
{
    private const int Chain = 5, Repeats = 9;

    /// <summary>100,000 frames over a chain of five rules, resolved once a rule, against resolving the cascade frame by frame.</summary>
    public static void Resolve()
    {
        var publication = Filled(100_000);
        var frames = publication.Frames.Values.ToArray();
        double once = Median(() =>
        {
            // A publication that begins with nothing worked out.
            var fresh = publication.With(new DefineRule
            {
                RuleId = publication.Rules.Keys.Min(),
                Name = "Root",
                Settings = new() { Fit = FitKind.Fill, AlignX = Random.Shared.NextDouble() }
            }.On(publication));
            var watch = Stopwatch.StartNew();
            double sum = 0;
            foreach (var frame in fresh.Frames.Values) sum += fresh.FittedOf(frame)!.Value.Coverage.CropLoss;
            return (watch.Elapsed.TotalMilliseconds, sum);
        });
        double each = Median(() =>
        {
            var watch = Stopwatch.StartNew();
            double sum = 0;
            foreach (var frame in frames)
            {
                var image = publication.ImageOf(frame)!;
                sum += Fitted.Of(frame.Box.Width, frame.Box.Height, frame.Outline, image.Picture(72),
                    frame.Own.Over(Cascade.SettingsOf(publication, frame.RuleId)).Resolve(), image.Subject, frame.Recrop).Coverage.CropLoss;
            }
            return (watch.Elapsed.TotalMilliseconds, sum);
        });
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"resolve, fit and measure 100,000 frames over a chain of {Chain}: {once:0} ms; resolving frame by frame {each:0} ms: ratio {once / each:0.00}"));
    }

    /// <summary>A rule changed, and a rule put on 10,000 frames, with all that is stored; against writing as many bytes into as many rows with plain
    /// SQL.</summary>
    public static async Task StoreAsync(string folder)
    {
        Directory.CreateDirectory(folder);
        string file = Path.Combine(folder, "rules.db");
        foreach (string old in Directory.GetFiles(folder, "rules.db*")) File.Delete(old);
        var store = new PublicationStore(file);
        var standing = await store.CreateAsync(new Setup { Name = "Bench", PageWidth = Units.Millimetres(210), PageHeight = Units.Millimetres(297) }, 1000);
        int id = standing.Id;
        var filled = Filled(10_000);
        await store.EditAsync(id, new LinkImages([.. filled.Images.Values]), Seen.Now(Maker.Program));
        var publication = (await store.OpenAsync(id)).Publication;
        int image = publication.Images.Keys.Min();
        int[] rules = await RulesAsync(store, id);
        foreach (var frame in filled.Frames.Values.OrderBy(f => f.Id).Take(10))
            await store.EditAsync(id, new MakeFrame { Page = 1, Box = frame.Box, ImageId = image, RuleId = rules[^1] }, Seen.Now(Maker.Program));
        await store.EditAsync(id, new Copies(9_990, image, rules[^1]), Seen.Now(Maker.Program));
        publication = (await store.OpenAsync(id)).Publication;

        int turn = 0;
        double rule = await MedianAsync(async () =>
        {
            var watch = Stopwatch.StartNew();
            var before = (await store.OpenAsync(id)).Publication;
            var edit = new DefineRule { RuleId = rules[0], Name = "Root", Settings = new() { Fit = FitKind.Fill, AlignX = 0.1 + 0.01 * turn++ } };
            int touched = Impact.Of(before, before.With(edit.On(before))).Frames.Length;
            await store.EditAsync(id, edit, Seen.Now(Maker.Program));
            return (watch.Elapsed.TotalMilliseconds, touched);
        });
        double put = await MedianAsync(async () =>
        {
            var watch = Stopwatch.StartNew();
            var now = (await store.OpenAsync(id)).Publication;
            await store.EditAsync(id, new ChangeFrames
            {
                FrameIds = FrameScope.FramesIn(now, null, FrameFilling.All),
                RuleId = new(rules[turn++ % rules.Length])
            }, Seen.Now(Maker.Program));
            return (watch.Elapsed.TotalMilliseconds, now.Frames.Count);
        });
        var undo = Stopwatch.StartNew();
        await store.UndoAsync(id, Seen.Now(Maker.Program));
        double undone = undo.Elapsed.TotalMilliseconds;
        double plain = await MedianAsync(() => PlainAsync(Path.Combine(folder, "plain.db"), publication));
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"change a rule that 10,000 frames follow, shown and stored: {rule:0} ms"));
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"put a rule on 10,000 frames, stored and journalled: {put:0} ms; undone {undone:0} ms; the same rows with plain SQL {plain:0} ms: ratio " +
            $"{put / plain:0.00}"));
    }

    private static async Task<(double, double)> PlainAsync(string file, Publication publication)
    {
        foreach (string old in Directory.GetFiles(Path.GetDirectoryName(file)!, Path.GetFileName(file) + "*")) File.Delete(old);
        await using var connection = new SqliteConnection($"Data Source={file};Pooling=false");
        await connection.OpenAsync();
        await RunAsync("PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; CREATE TABLE rows(id INTEGER PRIMARY KEY, text TEXT); CREATE TABLE journal(id " +
            "INTEGER PRIMARY KEY, text TEXT)");
        var texts = publication.Frames.Values.Select(f => PartJson.Write(f)).ToArray();
        var watch = Stopwatch.StartNew();
        await using var transaction = connection.BeginTransaction();
        await using var insert = connection.CreateCommand();
        insert.CommandText = "INSERT INTO rows VALUES (@id, @text)";
        var (idValue, textValue) = (insert.Parameters.Add("@id", SqliteType.Integer), insert.Parameters.Add("@text", SqliteType.Text));
        for (int i = 0; i < texts.Length; i++)
        {
            (idValue.Value, textValue.Value) = (i, texts[i]);
            await insert.ExecuteNonQueryAsync();
        }
        insert.CommandText = "INSERT INTO journal VALUES (@id, @text)";
        (idValue.Value, textValue.Value) = (0, string.Concat(texts) + string.Concat(texts));
        await insert.ExecuteNonQueryAsync();
        await transaction.CommitAsync();
        return (watch.Elapsed.TotalMilliseconds, texts.Length);

        async Task RunAsync(string sql)
        {
            await using var command = connection.CreateCommand();
            command.CommandText = sql;
            await command.ExecuteNonQueryAsync();
        }
    }

    private static async Task<int[]> RulesAsync(PublicationStore store, int id)
    {
        int? basis = null;
        for (int i = 0; i < Chain; i++)
        {
            var outcome = await store.EditAsync(id, new DefineRule { Name = i == 0 ? "Root" : $"Rule {i}", BasedOnId = basis, Settings = SettingsAt(i) },
                Seen.Now(Maker.Program));
            basis = outcome.Changes.Items[0].Key.Id;
        }
        return [.. (await store.OpenAsync(id)).Publication.Rules.Keys.Order()];
    }

    private static FitSettings SettingsAt(int i) => i switch
    {
        0 => new() { Fit = FitKind.Fill },
        1 => new() { AlignY = 0.3 },
        2 => new() { InsetTop = 2 },
        3 => new() { SmallestPpi = 150 },
        _ => new() { InsetLeft = 3 }
    };

    private static Publication Filled(int frames)
    {
        var random = new Random(1);
        var parts = new List<Part> { new Setup { Name = "Bench", PageWidth = Units.Millimetres(210), PageHeight = Units.Millimetres(297) }, new PageOrder([1]),
            new Page(1) };
        for (int i = 0; i < Chain; i++)
            parts.Add(new FittingRule { Id = i + 1, Name = i == 0 ? "Root" : $"Rule {i}", BasedOnId = i == 0 ? null : i, Settings = SettingsAt(i) });
        for (int i = 0; i < 200; i++)
        {
            parts.Add(new LinkedImage
            {
                Id = i + 1,
                Name = $"p{i}.jpg",
                Path = $"/p{i}.jpg",
                Bytes = 1,
                Modified = default,
                ContentHash = new string('0', 64),
                Format = "jpeg",
                StoredWidthPx = 1000 + random.Next(4000),
                StoredHeightPx = 1000 + random.Next(4000),
                StoredPpiX = 300,
                StoredPpiY = 300,
            });
        }
        for (int i = 0; i < frames; i++)
            parts.Add(new Frame
            {
                Id = i + 1,
                PageId = 1,
                Box = new(random.Next(300), random.Next(600), 20 + random.Next(400), 20 + random.Next(400)),
                RuleId = Chain,
                ImageId = 1 + random.Next(200)
            });
        return Publication.FromParts(frames + 1000, parts);
    }

    /// <summary>Makes many frames at once.</summary>
    private sealed record Copies(int Count, int ImageId, int RuleId) : Edit
    {
        public override string Words => "Make copies";

        protected override void Make(Draft draft)
        {
            var random = new Random(2);
            for (int i = 0; i < Count; i++)
                draft.Put(new Frame
                {
                    Id = draft.NewId(),
                    PageId = draft.Origin.Order.Ids[i / 10],
                    Box = new(random.Next(300), random.Next(600), 20 + random.Next(400), 20 + random.Next(400)),
                    RuleId = RuleId,
                    ImageId = ImageId
                });
        }
    }

    private static double Median(Func<(double Milliseconds, double Sum)> run)
    {
        var times = new List<double>();
        for (int i = 0; i < Repeats; i++) times.Add(run().Milliseconds);
        return times.Order().ElementAt(Repeats / 2);
    }

    private static async Task<double> MedianAsync(Func<Task<(double Milliseconds, double Sum)>> run)
    {
        var times = new List<double>();
        for (int i = 0; i < Repeats; i++) times.Add((await run()).Milliseconds);
        return times.Order().ElementAt(Repeats / 2);
    }
}
