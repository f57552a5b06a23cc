using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Storage;
using Formatum.Web.Colours;
using Formatum.Web.Rules;
using Formatum.Web.Wording;

namespace Formatum.Web.Looks;

/// <summary>A named look under the hands: as it is stored, as it is typed, and what that would come to.</summary>
public sealed class LookSheet
{
    public Standing Standing { get; }

    /// <summary>The look as it is stored; null for a new one.</summary>
    public NamedLook? Look { get; }

    public LookForm Form { get; }

    /// <summary>What is wrong, by field or figure.</summary>
    public IReadOnlyDictionary<string, string> Errors { get; } = new Dictionary<string, string>();

    /// <summary>The publication as it would be; as it is where nothing is changed, or what is typed cannot be.</summary>
    public Publication After { get; }

    /// <summary>Whether anything typed differs from what is stored.</summary>
    public bool Changed { get; }

    /// <summary>What the change would do to the frames that follow.</summary>
    public FrameImpact Impact { get; }

    public LookSheet(Standing standing, NamedLook? look, LookForm form)
    {
        (Standing, Look, Form) = (standing, look, form);
        var errors = new FieldErrors();
        After = Before;
        try
        {
            var edit = form.Read(Before, look, errors);
            errors.ThrowIfAny();
            var changes = edit.On(Before);
            Changed = !changes.IsEmpty;
            After = Before.With(changes);
        }
        catch (EditRefused refused)
        {
            Changed = true;
            // A look not begun yet has no name, and nobody need be told.
            Errors = refused.Errors.Where(e => look is not null || e.Field != "name" || !string.IsNullOrWhiteSpace(form.Name))
                .GroupBy(e => e.Field.Replace("look.", "", StringComparison.Ordinal)).ToDictionary(g => g.Key, g => string.Join(' ', g.Select(e => e.Message)));
        }
        Impact = ImpactOf(standing, After);
    }

    public Publication Before => Standing.Publication;

    /// <summary>The frames that look otherwise after a change, in reading order of their pages.</summary>
    public static FrameImpact ImpactOf(Standing standing, Publication after) => new(standing, after, [.. standing.Publication.Frames.Values
        .Where(f => after.Frames.TryGetValue(f.Id, out var will) && standing.Publication.LookOf(f) != after.LookOf(will))
        .OrderBy(f => standing.Publication.Order.IndexOf(f.PageId)).ThenBy(f => f.Id)]);

    /// <summary>The look's id in <see cref="After"/>; null where there is none yet.</summary>
    public int? ShownId => Look?.Id ?? (ReferenceEquals(After, Before) ? null : After.Looks.Keys.Except(Before.Looks.Keys).SingleOrDefault());

    /// <summary>Where a part comes from, in words: for one that is set, what it is set over.</summary>
    public string SourceOf(Setting<LookSettings> part)
    {
        int? beneath = Form.BasedOn != Look?.Id ? Form.BasedOn : null;
        string words = LookText.Words(After, LookCascade.SettingsOf(After, beneath).Resolve(), part.Name);
        string? source = LookCascade.LookSaying(After, beneath, part)?.Name;
        return Form.IsOn(part) ? source is null ? "set here" : $"set here, over {words}" : $"open: {words}, {source ?? "as the frame has it"}";
    }

    /// <summary>A few of the publication's own frames with the look: those that have it first, then others with pictures.</summary>
    public string Samples(int most)
    {
        var own = Look is null ? [] : LookCascade.Followers(Before, Look.Id);
        var frames = own.Concat(Before.Frames.Values.Where(f => f.ImageId is not null).OrderBy(f => Before.Order.IndexOf(f.PageId)).ThenBy(f => f.Id))
            .DistinctBy(f => f.Id).Take(most);
        return string.Concat(frames.Select(f => FramePicture.Draw(After, f with { LookId = ShownId, Look = LookSettings.Open }, "sample")));
    }
}
