using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Web.Wording;

namespace Formatum.Web.Looks;

/// <summary>A named look as it is typed: text, so that nothing typed is lost however wrong it is. A part that is not on is left open.</summary>
public sealed class LookForm
{
    public string? Name { get; set; }
    public int? BasedOn { get; set; }

    /// <summary>The frame whose look it takes on; null for none.</summary>
    public int? Like { get; set; }

    /// <summary>The publication's revision when the form was made.</summary>
    public long Seen { get; set; }

    /// <summary>The parts that are set, by name.</summary>
    public List<string> On { get; set; } = [];

    /// <summary>Figures as typed, by <see cref="Key"/>.</summary>
    public Dictionary<string, string?> Figures { get; set; } = [];

    /// <summary>What a figure is called in the form: names with dots would be taken for parts of each other.</summary>
    public static string Key(LookText.Figure figure) => figure.Name.Replace('.', '_');

    public bool IsOn(Setting<LookSettings> part) => On.Contains(part.Name);

    public static LookForm Of(Publication publication, NamedLook? look, Frame? like)
    {
        var form = new LookForm { Name = look?.Name, BasedOn = look?.BasedOnId, Like = like?.Id };
        var basis = form.Basis(publication, look);
        form.On = [.. LookSettings.All.Where(s => (look is not null && s.IsSet(look.Settings)) || (like is not null && s.IsSet(like.Look)))
            .Select(s => s.Name)];
        form.Figures = LookText.Figures.Values.SelectMany(f => f).ToDictionary(Key, f => (string?)LookText.Value(publication, basis, f.Name));
        return form;
    }

    /// <summary>What is typed over: how the frame looks that it is to be like, or what the look comes to as it is.</summary>
    private Look Basis(Publication publication, NamedLook? look) => Like is { } id && publication.Frames.TryGetValue(id, out var like)
        ? publication.LookOf(like) : LookCascade.SettingsOf(publication, look?.Id ?? BasedOn).Resolve();

    /// <summary>The edit that the form asks for; what cannot be read goes to <paramref name="errors"/>.</summary>
    public DefineLook Read(Publication publication, NamedLook? look, FieldErrors errors)
    {
        var basis = Basis(publication, look);
        var made = basis;
        foreach (var (part, figures) in LookText.Figures.Where(f => On.Contains(f.Key)))
            foreach (var figure in figures)
            {
                string typed = Figures.GetValueOrDefault(Key(figure))?.Trim() ?? "";
                // What was not typed over stays to the last digit, of which the field shows three.
                if (typed != LookText.Value(publication, basis, figure.Name)) made = LookText.Change(publication, made, figure.Name, typed, errors).On(made);
            }
        return new()
        {
            LookId = look?.Id,
            Name = Name ?? "",
            BasedOnId = BasedOn,
            LikeFrameId = Like,
            Settings = LookSettings.Whole(made).Kept(IsOn),
        };
    }
}
