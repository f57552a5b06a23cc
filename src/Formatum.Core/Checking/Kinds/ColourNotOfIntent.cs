using System.Collections.Immutable;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Checking.Kinds;

internal sealed class ColourNotOfIntent : KindCheck
{
    public override FindingKind Kind => FindingKind.ColourNotOfIntent;
    public override string Title => "Colour given as light";
    public override string Mark => "light, not ink";
    public override string Why => "A press prints inks. What a screen shows as light comes out otherwise, most of all bright colours.";

    /// <summary>Whether light has no colour: it is printed in ink black alone.</summary>
    private static bool IsNeutral(RgbColour colour) => colour.Red == colour.Green && colour.Green == colour.Blue;

    private static bool IsLight(Colour colour) => colour is RgbColour light && !IsNeutral(light);

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame) => Found(frame.Publication, frame.Look.AllColours(), frame.Frame, frame.Place,
        LosesInks(frame.Image, frame.Look.Treatment) ? "The inks of its picture become light by its treatment." : null);

    /// <summary>Whether a picture in inks is treated as light: all treatments work on what shows, but those that give it a grey or inks anew.</summary>
    private static bool LosesInks(LinkedImage? image, Treatment? treatment) =>
        image?.Colour == "CMYK" && treatment is { Works: true, MakesGrey: false, Inks: null };

    internal override IEnumerable<Finding> OfText(CheckedText text) => Found(text.Publication, text.Runs.Select(r => r.Style.Colour), text.Frame, text.Place);

    /// <summary>Colours typed on a frame are found on the frame, those of the palette on their colour there.</summary>
    private IEnumerable<Finding> Found(Publication publication, IEnumerable<Colour> colours, Frame frame, FindingPlace place, string? ofPicture = null)
    {
        var own = new SortedSet<string>(StringComparer.Ordinal);
        var named = new SortedSet<int>();
        foreach (var colour in colours)
        {
            if (colour is NamedColour { Id: var id })
            {
                if (publication.Colours.GetValueOrDefault(id) is { } known && IsLight(known.Colour)) named.Add(id);
            }
            else if (IsLight(colour)) own.Add(colour.Text);
        }
        string?[] words = [own.Count > 0 ? $"It has {string.Join(", ", own)}." : null, ofPicture];
        if (words.Any(w => w is not null))
            yield return On(frame.Key, frame.Label, string.Join(' ', words.Where(w => w is not null)), own.Count + (ofPicture is null ? 0 : 1)) with
            {
                Places = [place],
            };
        foreach (int id in named)
            yield return On(new(PartKind.Colour, id), publication.Colours[id].Name, $"In the palette it is {publication.Colours[id].Colour.Text}.", 1) with
            {
                Places = [place],
            };
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding)
    {
        if (Inks(context.Publication).Count == 0) yield break;
        yield return new("nearest", "Take the palette's nearest colour", publication => finding.Part.Kind == PartKind.Colour
            ? OfPalette(publication, finding.Part.Id) : OfFrame(publication, finding.Part.Id));
    }

    private static List<PaletteColour> Inks(Publication publication) => [.. publication.Colours.Values.Where(c => !IsLight(c.Colour)).OrderBy(c => c.Id)];

    private static RemoveColours? OfPalette(Publication publication, int id) => publication.Colours.TryGetValue(id, out var colour) && IsLight(colour.Colour)
        && Inks(publication).Count > 0 ? new RemoveColours([id], Nearest(publication, colour.Colour)) : null;

    private static Together? OfFrame(Publication publication, int id)
    {
        if (publication.Frames.GetValueOrDefault(id) is not { } frame || Inks(publication).Count == 0) return null;
        Colour Instead(Colour colour) => IsLight(colour) ? Nearest(publication, colour) : colour;
        var look = publication.LookOf(frame);
        var edits = ImmutableArray.CreateBuilder<Edit>();
        if (look.AllColours().Any(IsLight))
            edits.Add(new GiveLook([id], LookSettings.Between(look, look.Recoloured(Instead)).Over(frame.Look), frame.LookId));
        if (publication.StoryOf(frame) is { } story
            && Recolouring.OfStory(publication, story, style => IsLight(style.Colour) ? Nearest(publication, style.Colour) : null) is { } text) edits.Add(text);
        return edits.Count == 0 ? null : new Together(edits.ToImmutable(), "Take the palette's nearest colour");
    }

    /// <summary>The ink colour of the palette that shows most alike, by the distance in CIELAB (CIE 15: delta E 1976).</summary>
    private static NamedColour Nearest(Publication publication, Colour colour) =>
        new(Inks(publication).MinBy(c => Lab.Of(publication.ColourOf(c.Colour).Shown).DistanceTo(Lab.Of(colour.Shown)))!.Id);
}
