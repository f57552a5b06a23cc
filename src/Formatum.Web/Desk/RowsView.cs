using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Web.Desk.Commands;
using Formatum.Web.Hosting;

namespace Formatum.Web.Desk;

/// <summary>A table that is to be poured, as its form sends it.</summary>
public sealed record RowsForm
{
    /// <summary>Where the table was put aside, once it was sent.</summary>
    public string? Token { get; init; }

    /// <summary>For each column, in order, the name of the frames it goes into; "none" for none.</summary>
    public string[] Targets { get; init; } = [];

    /// <summary>The encoding of a table that does not say it itself; null for the usual one.</summary>
    public string? Encoding { get; init; }

    /// <summary>Whether that is to be chosen.</summary>
    public bool EncodingUnclear { get; init; }

    public PourLayout Layout { get; init; } = PourLayout.Page;

    /// <summary>The row that is looked at, from 1.</summary>
    public int Row { get; init; } = 1;
}

/// <summary>What pouring a table would come to.</summary>
public sealed record RowsView(DeskView Desk, RowsForm Form, Table Table, ImmutableArray<string> FrameNames, Publication? After,
    ImmutableArray<CellPlace> Places, IReadOnlyList<RowFinding> Findings, string? Refusal)
{
    public const int FindingsShown = 60;

    public int PagesAdded => After is null ? 0 : After.PageCount - Desk.Publication.PageCount;

    public static RowsView Of(DeskView desk, RowsForm form, Table table)
    {
        var publication = desk.Publication;
        ImmutableArray<string> names = [.. desk.Spread.Pages.SelectMany(p => publication.FramesOnPage(p.Page.Id)).Select(f => f.Name).Where(n => n.Length > 0)
            .Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.OrdinalIgnoreCase)];
        if (form.Targets.Length != table.Columns.Length)
        {
            var guessed = RowPlan.Guess(table, desk.Spread.Pages.SelectMany(p => publication.FramesOnPage(p.Page.Id)))
                .ToDictionary(t => t.Column, t => t.FrameName);
            form = form with { Targets = [.. table.Columns.Select((_, i) => guessed.GetValueOrDefault(i, "none"))] };
        }
        try
        {
            var (after, places, findings) = Edit(desk, form, table).Proposal(publication);
            return new(desk, form, table, names, after, places, findings, null);
        }
        catch (EditRefused refused)
        {
            return new(desk, form, table, names, null, [], [], refused.Message);
        }
    }

    /// <summary>Begins on the page of the spread that has the named frames, or on the spread.</summary>
    public static PourRows Edit(DeskView desk, RowsForm form, Table table)
    {
        ImmutableArray<ColumnTarget> targets = [.. form.Targets.Select((name, i) => new ColumnTarget(i, name))
            .Where(t => t.FrameName is { Length: > 0 } and not "none")];
        var forms = new RowForm(table);
        var meant = targets.Select(t => t.FrameName).ToHashSet(StringComparer.OrdinalIgnoreCase);
        if (desk.Spread.Master is not null) throw new EditRefused("into", "A table is poured into pages. Open a spread of the publication, and pour there.");
        var pages = desk.Spread.Pages.Select(p => p.Number).Order().ToList();
        var named = pages.Where(n => desk.Publication.FramesOnPage(desk.Publication.Order.Ids[n - 1])
            .Any(f => meant.Contains(f.Name) || (desk.Publication.StoryOf(f) is { } story && forms.ColumnsOf(story.Text).Count > 0))).ToList();
        if (named.Count > 0 && form.Layout != PourLayout.Spread) pages = named;
        return new()
        {
            Table = table,
            Targets = targets,
            FirstPage = pages[0],
            LastPage = form.Layout == PourLayout.None ? desk.Publication.PageCount : pages[^1],
            LayoutPages = form.Layout == PourLayout.None ? [] : [.. pages],
        };
    }

    /// <summary>The spread that the row looked at comes to lie on.</summary>
    public string? Preview()
    {
        if (After is null) return null;
        var mine = Places.Where(p => p.Row == Form.Row - 1).ToList();
        if (mine.Count == 0) return null;
        int page = After.Order.IndexOf(After.Frames[mine[0].FrameId].PageId) + 1;
        return SpreadView.Miniature(After, Spread.At(After, Spread.IndexOfPage(After, page)), "row-");
    }
}

/// <summary>Tables put aside between being looked at and being poured.</summary>
public sealed class TableShelf(ServerOptions options)
{
    private static readonly TimeSpan KeptFor = TimeSpan.FromDays(1);

    private string Folder => Path.Combine(options.DataFolder, "tables");

    public async Task<string> KeepAsync(Stream content)
    {
        Directory.CreateDirectory(Folder);
        foreach (var old in new DirectoryInfo(Folder).EnumerateFiles().Where(f => DateTime.UtcNow - f.LastWriteTimeUtc > KeptFor)) old.Delete();
        string token = Guid.NewGuid().ToString("n");
        await using var file = File.Create(Path.Combine(Folder, token));
        await content.CopyToAsync(file);
        return token;
    }

    /// <summary>Whether a table that was put aside does not say how it is encoded.</summary>
    public bool IsUnclear(string? token) => Guid.TryParseExact(token, "n", out var id) && TableFile.IsUnclear(File.ReadAllBytes(Path.Combine(Folder,
        id.ToString("n", CultureInfo.InvariantCulture))));

    /// <exception cref="EditRefused">It is not there any more, or no table.</exception>
    public Table Read(string? token, string? encoding)
    {
        if (!Guid.TryParseExact(token, "n", out var id) || !File.Exists(Path.Combine(Folder, id.ToString("n", CultureInfo.InvariantCulture))))
            throw new EditRefused("table", "The table is no longer here. Choose its file again.");
        using var file = File.OpenRead(Path.Combine(Folder, id.ToString("n", CultureInfo.InvariantCulture)));
        return TableFile.Read(file, encoding);
    }
}
