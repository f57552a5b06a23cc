using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output.Press;
using Formatum.Storage;

namespace Formatum.Web.Colours;

/// <summary>A colour of the palette under the hands: as it is stored, as it is typed, and what that would come to.</summary>
public sealed class ColourSheet
{
    public Standing Standing { get; }

    /// <summary>The colour as it is stored; null for a new one.</summary>
    public PaletteColour? Colour { get; }

    public ColourForm Form { get; }

    /// <summary>What is wrong, by field.</summary>
    public IReadOnlyDictionary<string, string> Errors { get; } = new Dictionary<string, string>();

    /// <summary>The colour as it would be; as it is where what is typed cannot be.</summary>
    public PaletteColour Shown { get; }

    /// <summary>Whether anything typed differs from what is stored.</summary>
    public bool Changed { get; }

    /// <summary>What the change would do to the frames that use it.</summary>
    public FrameImpact Impact { get; }

    /// <summary>The press it is printed on.</summary>
    public PressConversion Press { get; }

    /// <summary>How the colour as it would be will print.</summary>
    public PrintedColour Printed => PrintedColour.Of(Shown.Colour, Press);

    public ColourSheet(Standing standing, PaletteColour? colour, ColourForm form, PressConversion press)
    {
        (Standing, Colour, Form, Press) = (standing, colour, form, press);
        var errors = new FieldErrors();
        var edit = form.Read(colour, errors);
        var before = standing.Publication;
        Shown = new() { Id = colour?.Id ?? 0, Name = edit.Name, Colour = edit.Colour, IsSpot = edit.IsSpot };
        var after = before;
        try
        {
            errors.ThrowIfAny();
            var changes = edit.On(before);
            Changed = !changes.IsEmpty;
            after = before.With(changes);
        }
        catch (EditRefused refused)
        {
            Changed = true;
            // A colour not begun yet has no name, and nobody need be told.
            Errors = refused.Errors.Where(e => colour is not null || e.Field != "name" || !string.IsNullOrWhiteSpace(form.Name))
                .GroupBy(e => e.Field).ToDictionary(g => g.Key, g => string.Join(' ', g.Select(e => e.Message)));
            if (errors.Any) Shown = colour ?? Shown;
        }
        Impact = new(standing, after, colour is null
            || before.Colours.GetValueOrDefault(colour.Id)?.Colour == after.Colours.GetValueOrDefault(colour.Id)?.Colour
            ? [] : ColourUse.Of(before, colour.Id).Frames);
    }
}
