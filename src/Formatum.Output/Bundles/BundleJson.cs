using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Output.Bundles;

/// <summary>
/// A publication as the JSON of a bundle, described in docs/bundle.md and publication.schema.json. The same publication always gives the same bytes.
/// </summary>
public static class BundleJson
{
    public const string Format = "formatum-publication";

    /// <summary>Grows when a reader of the version before could misread what is written.</summary>
    public const int Version = 11;

    private static readonly string[] Known = ["format", "version", "nextId", "setup", "pages", "masters", "rules", "images", "frames", "stories", "styles",
        "fonts", "colours", "looks", "recipes", "checkProfiles", "accepted", "tray"];

    // Readable as it stands: letters of all scripts as themselves. It never becomes part of a page.
    private static readonly JsonWriterOptions Writing = new() { Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <param name="publication">The publication.</param>
    /// <param name="fileOf">Where in the bundle a file is, by the id of the image or font; those whose files are not in it are left out.</param>
    /// <param name="output">Where to write.</param>
    public static void Write(Publication publication, IReadOnlyDictionary<int, string> fileOf, Stream output)
    {
        using var writer = new Utf8JsonWriter(output, Writing);
        writer.WriteStartObject();
        writer.WriteString("format", Format);
        writer.WriteNumber("version", Version);
        writer.WriteNumber("nextId", publication.NextId);
        writer.WritePropertyName("setup");
        PartJson.ToObject(publication.Setup).WriteTo(writer);
        List(writer, "pages", publication.Order.Ids.Select(id => PartJson.ToObject(publication.Pages[id])));
        if (!publication.Masters.IsEmpty) List(writer, "masters", publication.Masters.Values.Select(m => MasterObject(publication, m)));
        List(writer, "rules", publication.Rules.Values.OrderBy(r => r.Id).Select(PartJson.ToObject));
        List(writer, "images", publication.Images.Values.OrderBy(i => i.Id).Select(i => ImageObject(i, fileOf.GetValueOrDefault(i.Id))));
        List(writer, "frames", publication.Frames.Values.OrderBy(f => f.Id).Select(PartJson.ToObject));
        List(writer, "stories", publication.Stories.Values.OrderBy(s => s.Id).Select(PartJson.ToObject));
        if (!publication.Styles.IsEmpty) List(writer, "styles", publication.Styles.Values.OrderBy(s => s.Id).Select(PartJson.ToObject));
        if (!publication.Fonts.IsEmpty) List(writer, "fonts", publication.Fonts.Values.OrderBy(f => f.Id).Select(f => FontObject(f,
            fileOf.GetValueOrDefault(f.Id))));
        if (!publication.Colours.IsEmpty) List(writer, "colours", publication.Colours.Values.OrderBy(c => c.Id).Select(PartJson.ToObject));
        if (!publication.Looks.IsEmpty) List(writer, "looks", publication.Looks.Values.OrderBy(l => l.Id).Select(PartJson.ToObject));
        if (!publication.Recipes.IsEmpty) List(writer, "recipes", publication.Recipes.Values.OrderBy(r => r.Id).Select(PartJson.ToObject));
        if (!publication.CheckProfiles.IsEmpty) List(writer, "checkProfiles", publication.CheckProfiles.Values.OrderBy(p => p.Id).Select(PartJson.ToObject));
        if (!publication.Accepted.IsEmpty) List(writer, "accepted", publication.Accepted.Values.OrderBy(a => a.Id).Select(PartJson.ToObject));
        List(writer, "tray", publication.Tray.ImageIds.Select(id => (JsonNode)id));
        writer.WriteEndObject();
    }

    private static void List(Utf8JsonWriter writer, string name, IEnumerable<JsonNode> items)
    {
        writer.WriteStartArray(name);
        foreach (var item in items) item.WriteTo(writer);
        writer.WriteEndArray();
    }

    /// <summary>A master with its two pages in it, in the places of their ids.</summary>
    private static JsonObject MasterObject(Publication publication, MasterPage master) => new()
    {
        ["id"] = master.Id,
        ["name"] = master.Name,
        ["verso"] = PartJson.ToObject(publication.Pages[master.VersoId]),
        ["recto"] = PartJson.ToObject(publication.Pages[master.RectoId]),
    };

    private static IEnumerable<Part> Master(JsonNode? node)
    {
        if (node is not JsonObject given) throw new JsonException("A master is not an object.");
        if (given.Select(p => p.Key).Except(["id", "name", "verso", "recto"]).FirstOrDefault() is { } unknown)
            throw new JsonException($"\"{unknown}\" does not belong in a master.");
        Page verso = PartJson.FromOutside<Page>(given["verso"]), recto = PartJson.FromOutside<Page>(given["recto"]);
        string name = Text(given["name"]) ?? throw new JsonException("A master has a \"name\".");
        return [verso, recto, new MasterPage { Id = Number(given["id"], "id"), Name = name, VersoId = verso.Id, RectoId = recto.Id }];
    }

    /// <summary>Where a file lies on this machine, and when it was last changed there, is nobody else's business.</summary>
    private static JsonObject ImageObject(LinkedImage image, string? file)
    {
        var written = PartJson.ToObject(image);
        written.Remove("path");
        written.Remove("modified");
        if (file is not null) written.Insert(1, "file", file);
        return written;
    }

    private static JsonObject FontObject(OwnFont font, string? file)
    {
        var written = PartJson.ToObject(font);
        if (file is not null) written.Insert(1, "file", file);
        return written;
    }

    /// <summary>Reads and checks a publication. The paths of its images are empty.</summary>
    /// <returns>The publication, and where in the bundle the files of its images and fonts are.</returns>
    /// <exception cref="BadBundle">It is not such JSON, of a newer version, or something in it is impossible.</exception>
    public static (Publication Publication, IReadOnlyDictionary<int, string> FileOf) Read(ReadOnlyMemory<byte> json)
    {
        try
        {
            Count(json.Span);
            var root = JsonNode.Parse(json.Span, documentOptions: new() { AllowDuplicateProperties = false }) as JsonObject ??
                throw new JsonException("It is not an object.");
            if (Text(root["format"]) != Format)
                throw new BadBundle($"This is not a bundle of Formatum: its publication.json does not say \"format\": \"{Format}\".");
            int version = Number(root["version"], "version");
            if (version > Version)
                throw new BadBundle($"The bundle was written by a newer Formatum: its version is {version}, and this one reads up to {Version}. Bring " +
                    $"this Formatum up to date, and take the bundle in again.");
            if (version < 1) throw Wrong($"There is no version {version}.");
            if (root.Select(p => p.Key).Except(Known).FirstOrDefault() is { } unknown) throw Wrong($"\"{unknown}\" does not belong there.");

            var fileOf = new Dictionary<int, string>();
            var parts = new List<Part> { PartJson.FromOutside<Setup>(root["setup"]) };
            var pages = Items(root, "pages").Select(PartJson.FromOutside<Page>).ToList();
            parts.AddRange(pages);
            parts.Add(new PageOrder([.. pages.Select(p => p.Id)]));
            if (root.ContainsKey("masters")) parts.AddRange(Items(root, "masters").SelectMany(Master));
            parts.AddRange(Items(root, "rules").Select(PartJson.FromOutside<FittingRule>));
            parts.AddRange(Items(root, "images").Select(node => Image(node, fileOf)));
            parts.AddRange(Items(root, "frames").SelectMany(node => Frame(node, version)));
            if (version >= StoriesSince) parts.AddRange(Items(root, "stories").Select(node => Story(node, version)));
            if (root.ContainsKey("styles")) parts.AddRange(Items(root, "styles").Select(PartJson.FromOutside<NamedStyle>));
            if (root.ContainsKey("fonts")) parts.AddRange(Items(root, "fonts").Select(node => Font(node, fileOf)));
            if (root.ContainsKey("colours")) parts.AddRange(Items(root, "colours").Select(PartJson.FromOutside<PaletteColour>));
            if (root.ContainsKey("looks")) parts.AddRange(Items(root, "looks").Select(PartJson.FromOutside<NamedLook>));
            if (root.ContainsKey("recipes")) parts.AddRange(Items(root, "recipes").Select(PartJson.FromOutside<Recipe>));
            if (root.ContainsKey("checkProfiles")) parts.AddRange(Items(root, "checkProfiles").Select(PartJson.FromOutside<CheckProfile>));
            if (root.ContainsKey("accepted")) parts.AddRange(Items(root, "accepted").Select(PartJson.FromOutside<AcceptedFinding>));
            parts.Add(new Tray([.. Items(root, "tray").Select(node => Number(node, "tray"))]));
            return (PublicationCheck.Assemble(Number(root["nextId"], "nextId"), parts), fileOf);
        }
        catch (JsonException e)
        {
            throw Wrong(e.Message, e);
        }
        catch (EditRefused e)
        {
            throw Wrong(e.Message, e);
        }
        // Half of a pair of UTF-16 (RFC 8259, 8.2).
        catch (InvalidOperationException e) when (e.Source?.StartsWith("System.Text.Json", StringComparison.Ordinal) == true)
        {
            throw Wrong("Some of its text is no text: it holds half of a character.", e);
        }
    }

    /// <summary>No publication has as many lists and objects; each takes memory many times as large as its two signs.</summary>
    private const int MostContainers = 3_000_000;

    private static void Count(ReadOnlySpan<byte> json)
    {
        var reader = new Utf8JsonReader(json);
        for (int containers = 0; reader.Read();)
            if (reader.TokenType is JsonTokenType.StartArray or JsonTokenType.StartObject && ++containers > MostContainers)
                throw Wrong($"It holds more than {MostContainers:#,0} lists and objects, as no publication does.");
    }

    /// <summary>The versions since which texts are stories of their own, their characters are set in runs, and parts of a look may be left open.</summary>
    private const int StoriesSince = 3, RunsSince = 4, OpenLooksSince = 6;

    /// <summary>A frame as it is written today, and its text, which was part of it before: until version 3, bundles hold frames in the version of their own
    /// number.</summary>
    private static IEnumerable<Part> Frame(JsonNode? node, int version)
    {
        if (version >= OpenLooksSince || node is not JsonObject old) return [PartJson.FromOutside<Frame>(node)];
        if (old["id"] is null) throw new JsonException("A frame has an \"id\".");
        var story = PartUpgrades.StoryWithin(PartKind.Frame, old, version);
        var frame = PartJson.FromOutside<Frame>(PartUpgrades.Upgrade(PartKind.Frame, old, Math.Min(version, StoriesSince)));
        return story is null ? [frame] : [frame, Story(story, version)];
    }

    private static Story Story(JsonNode? node, int version) => PartJson.FromOutside<Story>(version < RunsSince && node is JsonObject old
        ? PartUpgrades.Upgrade(PartKind.Story, old, 1) : node);

    private static LinkedImage Image(JsonNode? node, Dictionary<int, string> fileOf)
    {
        if (node is not JsonObject given) throw new JsonException("An image is not an object.");
        foreach (string own in new[] { "path", "modified" })
        {
            if (given.ContainsKey(own)) throw new JsonException($"An image has no \"{own}\" in a bundle.");
        }
        string? file = FileIn(given);
        given["path"] = "";
        given["modified"] = default(DateTimeOffset);
        var image = PartJson.FromOutside<LinkedImage>(given);
        if (file is not null) fileOf[image.Id] = file;
        return image;
    }

    private static OwnFont Font(JsonNode? node, Dictionary<int, string> fileOf)
    {
        if (node is not JsonObject given) throw new JsonException("A font is not an object.");
        string? file = FileIn(given);
        var font = PartJson.FromOutside<OwnFont>(given);
        if (file is not null) fileOf[font.Id] = file;
        return font;
    }

    /// <summary>Takes out of a part where its file is.</summary>
    private static string? FileIn(JsonObject given)
    {
        string? file = given["file"] is { } named ? Text(named) ?? throw new JsonException("\"file\" is a text.") : null;
        given.Remove("file");
        return file;
    }

    private static JsonArray Items(JsonObject root, string name) => root[name] as JsonArray ??
        throw new JsonException($"\"{name}\" is missing, or not a list.");

    private static string? Text(JsonNode? node) => node is JsonValue value && value.TryGetValue(out string? text) ? text : null;

    private static int Number(JsonNode? node, string name) => node is JsonValue value && value.TryGetValue(out int number) ? number :
        throw new JsonException($"\"{name}\" is missing, or not a whole number.");

    private static BadBundle Wrong(string what, Exception? cause = null) => new($"The bundle's publication.json cannot be used: {what}", cause!);
}
