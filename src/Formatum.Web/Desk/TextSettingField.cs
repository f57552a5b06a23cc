using Formatum.Core.Settings;
using Formatum.Core.Stories;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>A setting of text as a field: of the text that is chosen, in the inspector.</summary>
/// <param name="Setting">Which.</param>
/// <param name="Text">The text.</param>
/// <param name="Label">What people read; null for its usual name.</param>
public sealed record TextSettingField(Setting<TextSettings> Setting, TextSelection Text, string? Label = null)
{
    public static Setting<TextSettings> Of(string name) => TextSettings.All.First(s => s.Name == name);

    public string Id => "text-" + Setting.Path;

    /// <summary>The value the paragraphs share; null where they differ.</summary>
    public string? Value => Text.Shared(Setting) is { } shared ? TextSettingText.Value(Setting, shared, Text.Publication) : null;

    public string Name => Label ?? Setting.Label;

    public string? Hint => Setting.Name switch
    {
        nameof(TextSettings.Leading) => "From baseline to baseline; auto is 1.2 of the size",
        nameof(TextSettings.Indent) => "How much later the first line begins; earlier where below 0",
        nameof(TextSettings.SpaceBefore) => "Space above a paragraph, but at the head of a column",
        nameof(TextSettings.SpaceAfter) => "Space below a paragraph",
        nameof(TextSettings.Tracking) => "Room between characters, in thousandths of the size",
        nameof(TextSettings.Tabs) => "Where each is, what stands there and what leads to it, such as 40 right .; 120 decimal",
        nameof(TextSettings.Orphans) => "So many lines at least stand together at the foot of a column",
        nameof(TextSettings.Widows) => "So many lines at least stand together at the head of a column",
        nameof(TextSettings.InitialLines) => "Over how many lines the first character reaches",
        nameof(TextSettings.SmallestSize) => "How small it may be set where Check makes text fit; 0 for four fifths of its size",
        nameof(TextSettings.OnGrid) => "Its baselines stand on the grid that Set-up says",
        nameof(TextSettings.Heading) => "Contents, running heads and bookmarks are made of headings: 1 for chapters, 2 for what is in them; 0 for none",
        _ => null,
    };
}
