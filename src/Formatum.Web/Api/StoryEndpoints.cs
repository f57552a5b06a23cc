using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>A story: the frames it runs through, and its words, plain or paragraph by paragraph. What is left out stays where there is one.</summary>
public sealed record StoryBody
{
    /// <summary>Frames by id, in the order the text runs through them: empty text frames or placeholders, or those it runs through already.</summary>
    public int[]? Frames { get; init; }

    /// <summary>Plain text: each line is a paragraph.</summary>
    public string? Text { get; init; }

    public ParagraphBody[]? Paragraphs { get; init; }
    public long? Seen { get; init; }

    /// <summary>The words with their styles; null where they are given plain, or not at all.</summary>
    /// <exception cref="EditRefused">Both are given, or a paragraph is missing.</exception>
    public FrameText? ToText(Publication publication) => Text is not null && Paragraphs is not null
        ? throw new EditRefused("text", "Give the text plain or as paragraphs, not both.")
        : Paragraphs is null ? null : new TextBody(Paragraphs).ToText(publication);
}

/// <summary>A piece of a line; x in points from the left of its frame.</summary>
public sealed record PieceAnswer(double X, double Width, string Text);

/// <summary>A line of a story, in pieces where it stands on both sides of something; its baseline in points from the top of its frame.</summary>
public sealed record LineAnswer(string Text, int Column, double Baseline, PieceAnswer[] Pieces);

/// <summary>A frame of a story, with the lines that stand in it.</summary>
public sealed record StoryFrameAnswer(int Id, LineAnswer[] Lines);

/// <summary>A story as it is kept and as it is set; how many of its characters and words have no place.</summary>
public sealed record StoryAnswer(int Id, ParagraphAnswer[] Paragraphs, int LeftOver, int WordsLeftOver, StoryFrameAnswer[] Frames)
{
    public static StoryAnswer Of(Publication publication, Story story)
    {
        var set = story.FrameIds.Select(id => Composition.TextOf(publication, publication.Frames[id], Typefaces.All)!).ToList();
        return new(story.Id, ParagraphAnswer.Of(publication, story), set[^1].LeftOut, set[^1].WordsLeftOver,
            [.. story.FrameIds.Select((id, i) => new StoryFrameAnswer(id, [.. LinesOf(set[i])]))]);
    }

    private static IEnumerable<LineAnswer> LinesOf(SetText text) => text.Lines.GroupBy(l => (l.Column, l.Baseline)).Select(line => new LineAnswer(
        string.Join(' ', line.Select(l => l.Text)), line.Key.Column, line.Key.Baseline, [.. line.Select(l => new PieceAnswer(l.X, l.Width, l.Text))]));
}

/// <summary>Stories in the automation interface.</summary>
internal static class StoryEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapPost("/stories", Make).WithSummary("Makes a story that runs through frames in which nothing is yet.");
        publication.MapPut("/stories/{storyId:int}", Change).WithSummary("Puts other words in a story's place, or has it run through other frames.");
        publication.MapGet("/stories/{storyId:int}", async (int id, int storyId, PublicationStore store) =>
        {
            var now = (await store.OpenAsync(id)).Publication;
            return StoryAnswer.Of(now, StoryIn(now, storyId));
        }).WithSummary("A story: its paragraphs, and the lines of it in each frame.");
    }

    private static async Task<IResult> Make(int id, StoryBody body, PublicationStore store, HttpContext context)
    {
        var text = body.ToText((await store.OpenAsync(id)).Publication) ?? FrameText.Empty(TextStyle.Usual).Worded(body.Text ?? "");
        var outcome = context.Told(await store.EditAsync(id, new MakeStory([.. body.Frames ?? []], text), context.Seen(body.Seen)));
        var made = (Story)outcome.Changes.Items.First(c => c.Key.Kind == PartKind.Story && c.After is not null && c.Before is null).After!;
        return TypedResults.Created($"/api/publications/{id}/stories/{made.Id}", StoryAnswer.Of(outcome.Standing.Publication, made));
    }

    private static async Task<StoryAnswer> Change(int id, int storyId, StoryBody body, PublicationStore store, HttpContext context)
    {
        var edit = new ChangeStory(storyId, body.Frames?.ToImmutableArray(), body.ToText((await store.OpenAsync(id)).Publication), body.Text);
        var outcome = context.Told(await store.EditAsync(id, edit, context.Seen(body.Seen)));
        return StoryAnswer.Of(outcome.Standing.Publication, outcome.Standing.Publication.Stories[storyId]);
    }

    private static Story StoryIn(Publication publication, int id) => publication.Stories.GetValueOrDefault(id)
        ?? throw new NoSuchPart("story", $"There is no story {id} in this publication. It may have been removed in another window.");
}
