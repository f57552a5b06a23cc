using System.Collections.Immutable;
using System.Text;
using Formatum.Core.Edits;
using Formatum.Core.Stories;

namespace Formatum.Documents;

/// <summary>A document while it is read: its paragraphs, and what is left aside.</summary>
internal sealed class Gathered
{
    private readonly List<BroughtParagraph> _paragraphs = [];
    private readonly SortedDictionary<string, int> _leftAside = new(StringComparer.Ordinal);

    /// <summary>Of the paragraph under way: characters that are set alike, the last still growing.</summary>
    private readonly List<(StringBuilder Text, TextSettings Set)> _runs = [];

    /// <summary>What a style says that a document names and the publication does not have yet. Sizes are common practice, no source.</summary>
    private static TextSettings UsualOf(string style) => style switch
    {
        "Title" => new() { Size = 26, Bold = true, Leading = 0, SpaceAfter = 8, KeepWithNext = true },
        "Heading 1" => new() { Size = 18, Bold = true, Leading = 0, SpaceBefore = 10, SpaceAfter = 4, KeepWithNext = true },
        "Heading 2" => new() { Size = 14, Bold = true, Leading = 0, SpaceBefore = 8, SpaceAfter = 3, KeepWithNext = true },
        "Quote" => new() { Italic = true, IndentLeft = 14, IndentRight = 14 },
        "Code" => new() { Family = "Courier Prime" },
        _ when style.StartsWith("Heading", StringComparison.Ordinal) => new()
        {
            Size = 12,
            Bold = true,
            Leading = 0,
            SpaceBefore = 6,
            SpaceAfter = 2,
            KeepWithNext = true
        },
        _ => TextSettings.Open,
    };

    public void LeaveAside(string what) => _leftAside[what] = _leftAside.GetValueOrDefault(what) + 1;

    /// <summary>Adds characters to the paragraph under way; those set like the ones before join them.</summary>
    public void Add(string text, TextSettings set)
    {
        text = FrameText.Clean(text).Replace('\n', FrameText.LineSeparator);
        if (text.Length == 0) return;
        if (_runs.Count > 0 && _runs[^1].Set == set) _runs[^1].Text.Append(text);
        else _runs.Add((new(text), set));
    }

    /// <summary>Whether the paragraph under way ends with a blank, or has not begun.</summary>
    public bool EndsBlank => _runs.Count == 0 || _runs[^1].Text[^1] is ' ' or FrameText.LineSeparator or '\t';

    /// <summary>Ends the paragraph under way.</summary>
    public void End(string? style, TextSettings set, bool keepEmpty = false)
    {
        while (_runs.Count > 0 && _runs[^1].Text is var last && last[^1] == ' ')
        {
            do last.Length--;
            while (last.Length > 0 && last[^1] == ' ');
            if (last.Length == 0) _runs.RemoveAt(_runs.Count - 1);
        }
        if (_runs.Count > 0 || keepEmpty) _paragraphs.Add(new(style, style is null ? TextSettings.Open : UsualOf(style), set,
            _runs.Count == 0 ? [new("", TextSettings.Open)] : [.. _runs.Select(r => new BroughtRun(r.Text.ToString(), r.Set))]));
        _runs.Clear();
    }

    public BroughtDocument ToDocument() => new([.. _paragraphs], [.. _leftAside.Select(l => l.Value == 1 ? l.Key : $"{l.Key}, {l.Value} times")]);
}
