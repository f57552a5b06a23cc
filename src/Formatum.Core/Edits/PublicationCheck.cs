using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>
/// Checks a whole publication that comes from outside, as the edits that would have made it check each part: whatever passes can be worked on like any other.
/// </summary>
public static class PublicationCheck
{
    /// <summary>So many findings are told; who has more has a file that is broken all over.</summary>
    private const int MostTold = 5;

    /// <summary>Ids above are left for edits to come.</summary>
    private const int LargestId = int.MaxValue / 2;

    private const int LongestImageName = 255, MostImagePixels = 1_000_000;

    /// <summary>
    /// No corner of an image that a frame holds lies farther off, in points: a picture of one by a million pixels fills the largest frame within it.
    /// </summary>
    private const double FarthestHeld = 1e12;

    /// <summary>An image that a frame holds covers more than this, in square points: one pixel at the highest resolution does.</summary>
    private const double SmallestHeld = 1e-20;

    /// <summary>Puts a publication together and checks all of it.</summary>
    /// <param name="nextId">An id that no part has had yet.</param>
    /// <param name="parts">Its parts, in any order.</param>
    /// <exception cref="EditRefused">Something is impossible; the message tells the first few things.</exception>
    public static Publication Assemble(int nextId, IReadOnlyCollection<Part> parts)
    {
        var findings = new FieldErrors();
        if (parts.GroupBy(p => p.Key).FirstOrDefault(g => g.Count() > 1) is { } twice)
            throw new EditRefused(Named(twice.Key), $"{Named(twice.Key)} is there twice.");
        if (parts.Max(p => p.Key.Id) >= nextId || nextId > LargestId)
            throw new EditRefused("nextId", $"The next id, {nextId}, is not above the ids that are taken, or out of all measure.");
        if (parts.FirstOrDefault(p => p is not (Setup or PageOrder or Tray) && p.Key.Id < 1) is { } low)
            throw new EditRefused(Named(low.Key), $"{Named(low.Key)}: ids count from 1.");
        var publication = Publication.FromParts(nextId, parts);
        var draft = new Draft(publication);
        Tell(findings, publication.Setup, errors => SetupOf(publication, errors));
        Tell(findings, publication.Order, errors => Order(publication, errors));
        Tell(findings, publication.Tray, errors => TrayOf(publication, errors));
        foreach (var page in publication.Pages.Values) Tell(findings, page, errors => PageOf(publication, page, errors));
        foreach (var master in publication.Masters.Values) Tell(findings, master, errors => MasterNames.CheckLength(master.Name, errors));
        if (publication.Masters.Count > MasterPage.Most)
            findings.Add("masters", $"There are {publication.Masters.Count} masters; {MasterPage.Most} is the most.");
        if (publication.Masters.Values.GroupBy(m => m.Name, RuleChecks.SameName).FirstOrDefault(g => g.Count() > 1) is { } named)
            findings.Add("masters", $"Two masters are named {named.Key}.");
        foreach (var image in publication.Images.Values) Tell(findings, image, errors => Image(image, errors));
        foreach (var rule in publication.Rules.Values) Tell(findings, rule, errors => RuleChecks.Check(publication, rule, errors));
        if (publication.Rules.Values.GroupBy(r => r.Name, RuleChecks.SameName).FirstOrDefault(g => g.Count() > 1) is { } same)
            findings.Add("rules", $"Two rules are named {same.Key}.");
        foreach (var style in publication.Styles.Values) Tell(findings, style, errors => StyleChecks.Check(publication, style, errors));
        if (publication.Styles.Count > NamedStyle.Most || publication.Styles.Values.GroupBy(s => s.Name, RuleChecks.SameName).Any(g => g.Count() > 1))
            findings.Add("styles", $"Styles have names of their own, and there are {NamedStyle.Most} at most.");
        foreach (var font in publication.Fonts.Values) Tell(findings, font, errors => FontChecks.Check(font, errors));
        foreach (var colour in publication.Colours.Values) Tell(findings, colour, errors => ColourChecks.Check(colour, errors));
        if (publication.Colours.Count > PaletteColour.Most || publication.Colours.Values.GroupBy(c => c.Name, RuleChecks.SameName).Any(g => g.Count() > 1))
            findings.Add("colours", $"Colours have names of their own, and there are {PaletteColour.Most} at most.");
        foreach (var look in publication.Looks.Values) Tell(findings, look, errors => LookChecks.Check(publication, look, errors));
        if (publication.Looks.Count > NamedLook.Most || publication.Looks.Values.GroupBy(l => l.Name, RuleChecks.SameName).Any(g => g.Count() > 1))
            findings.Add("looks", $"Looks have names of their own, and there are {NamedLook.Most} at most.");
        foreach (var recipe in publication.Recipes.Values) Tell(findings, recipe, recipe.Check);
        if (publication.Recipes.Count > Recipe.Most || publication.Recipes.Values.GroupBy(r => r.Name, RuleChecks.SameName).Any(g => g.Count() > 1))
            findings.Add("recipes", $"Recipes have names of their own, and there are {Recipe.Most} at most.");
        foreach (var profile in publication.CheckProfiles.Values) Tell(findings, profile, profile.Check);
        if (publication.CheckProfiles.Count > CheckProfile.Most
            || publication.CheckProfiles.Values.GroupBy(p => p.Name, RuleChecks.SameName).Any(g => g.Count() > 1))
            findings.Add("checkProfiles", $"Check profiles have names of their own, and there are {CheckProfile.Most} at most.");
        foreach (var accepted in publication.Accepted.Values) Tell(findings, accepted, accepted.Check);
        if (publication.Accepted.Count > AcceptedFinding.Most) findings.Add("accepted", $"{AcceptedFinding.Most} findings are accepted at most.");
        if (publication.Fonts.Count > OwnFont.Most || publication.Fonts.Values.GroupBy(f => (f.Family, f.Bold, f.Italic)).Any(g => g.Count() > 1))
            findings.Add("fonts", $"A family has each of its faces once, and there are {OwnFont.Most} fonts at most.");
        foreach (var frame in publication.Frames.Values)
        {
            Tell(findings, frame, errors =>
            {
                if (!publication.Pages.ContainsKey(frame.PageId)) errors.Add("pageId", $"There is no page {frame.PageId}.");
                if (frame.MasterFrameId is { } id && (publication.MasterWith(frame.PageId) is not null || !publication.Frames.TryGetValue(id, out var followed)
                    || publication.MasterWith(followed.PageId) is null))
                    errors.Add("masterFrameId", $"There is no frame {id} of a master that it could follow.");
                if (frame.Held is { Matrix: var m } && !(new[] { m.A, m.B, m.C, m.D, m.E, m.F }.All(v => Math.Abs(v) <= FarthestHeld)
                    && Math.Abs(m.Determinant) >= SmallestHeld))
                    errors.Add("held", "Where it holds its image is out of all measure, or has no area.");
                if (frame.StoryId is { } told && publication.Stories.GetValueOrDefault(told)?.FrameIds.Contains(frame.Id) != true)
                    errors.Add("storyId", $"Story {told} does not run through it.");
                FrameChecks.Check(draft, frame);
            });
            if (findings.ToImmutable().Length >= MostTold) break;
        }
        foreach (var story in publication.Stories.Values) Tell(findings, story, errors => StoryOf(publication, story, errors));
        if (findings.Any) throw new EditRefused([.. findings.ToImmutable().Take(MostTold)]);
        return publication;
    }

    /// <summary>Adds what is wrong with a part, with the part's name before it.</summary>
    private static void Tell(FieldErrors findings, Part part, Action<FieldErrors> check)
    {
        var errors = new FieldErrors();
        try
        {
            check(errors);
            errors.ThrowIfAny();
        }
        catch (EditRefused e)
        {
            foreach (var error in e.Errors) findings.Add($"{Named(part.Key)}.{error.Field}", $"{Named(part.Key)}, {error.Field}: {error.Message}");
        }
    }

    private static string Named(PartKey key) => key.Id == 0 ? PartKinds.Of(key.Kind).Noun : $"{PartKinds.Of(key.Kind).Noun} {key.Id}";

    private static void StoryOf(Publication publication, Story story, FieldErrors errors)
    {
        if (story.FrameIds.IsDefaultOrEmpty || story.FrameIds.Length > Story.MostFrames || story.FrameIds.Distinct().Count() != story.FrameIds.Length
            || !story.FrameIds.All(id => publication.Frames.TryGetValue(id, out var frame) && frame.StoryId == story.Id))
            errors.Add("frameIds", "A story runs through one frame or more, each once, and each of them bears it.");
        story.Text.Check(errors);
        if (!errors.Any) StyleChecks.CheckNamed(id => publication.Styles.GetValueOrDefault(id), story.Text, errors);
    }

    private static void SetupOf(Publication publication, FieldErrors errors)
    {
        publication.Setup.Check(errors);
        if (publication.Setup.DefaultRuleId is { } id && !publication.Rules.ContainsKey(id)) errors.Add("defaultRuleId", $"There is no rule {id}.");
        if (publication.Setup.DefaultStyleId is { } style && publication.Styles.GetValueOrDefault(style)?.Kind != StyleKind.Paragraph)
            errors.Add("defaultStyleId", $"There is no paragraph style {style}.");
    }

    private static void Order(Publication publication, FieldErrors errors)
    {
        if (publication.PageCount is < 1 or > Setup.MostPages)
            errors.Add("pages", $"{publication.PageCount} pages are not possible; there are 1 to {Setup.MostPages}.");
        var all = publication.Order.Ids.Concat(publication.Masters.Values.SelectMany(m => new[] { m.VersoId, m.RectoId }));
        if (!all.Order().SequenceEqual(publication.Pages.Keys.Order())) errors.Add("pages", "The order and the masters together do not name each page once.");
    }

    private static void TrayOf(Publication publication, FieldErrors errors)
    {
        var ids = publication.Tray.ImageIds;
        if (ids.Distinct().Count() != ids.Length || !ids.All(publication.Images.ContainsKey))
            errors.Add("tray", "The tray names an image twice, or one that is not there.");
    }

    private static void PageOf(Publication publication, Page page, FieldErrors errors)
    {
        if (page.MasterId is { } id && (!publication.Masters.ContainsKey(id) || publication.MasterWith(page.Id) is not null))
            errors.Add("masterId", publication.Masters.ContainsKey(id) ? "A page of a master is based on no other." : $"There is no master {id}.");
        if (page.Guides.Length > Page.MostGuides) errors.Add("guides", $"A page has {Page.MostGuides} guides at most.");
        foreach (var guide in page.Guides)
            errors.Length("guides", guide.At, -2 * Setup.LargestSide, 2 * Setup.LargestSide, "A guide lies on its page or near it.");
    }

    private static void Image(LinkedImage image, FieldErrors errors)
    {
        foreach (string name in image.OtherNames.Prepend(image.Name))
        {
            if (string.IsNullOrWhiteSpace(name) || name.Length > LongestImageName || name.AsSpan().IndexOfAny('/', '\0') >= 0)
                errors.Add("name", $"A file's name has 1 to {LongestImageName} characters, and no path.");
        }
        if (image.Bytes < 0) errors.Add("bytes", "A file has 0 bytes or more.");
        if (image.ContentHash.Length != 64 || !image.ContentHash.All(char.IsAsciiHexDigitLower))
            errors.Add("contentHash", "A content hash is SHA-256 as 64 lower-case hexadecimal digits.");
        if (!LinkedImage.Formats.Contains(image.Format))
            errors.Add("format", $"There is no format \"{image.Format}\"; there are {string.Join(", ", LinkedImage.Formats)}.");
        errors.Range("storedWidthPx", image.StoredWidthPx, 1, MostImagePixels, "A picture is 1 to 1,000,000 pixels wide.");
        errors.Range("storedHeightPx", image.StoredHeightPx, 1, MostImagePixels, "A picture is 1 to 1,000,000 pixels high.");
        if (!Orientation.IsValid(image.Orientation)) errors.Add("orientation", "An EXIF orientation is from 1 to 8.");
        foreach (var (field, ppi) in new[] { ("storedPpiX", image.StoredPpiX), ("storedPpiY", image.StoredPpiY) })
            errors.Range(field, ppi, 1e-3, 1e6, "A stored resolution lies between 0.001 and 1,000,000 ppi.");
        FitRequestCheck.SubjectCheck(image.Subject, errors);
        FitRequestCheck.SubjectCheck(image.SuggestedSubject, errors);
        image.Contour?.Check(errors);
    }
}
