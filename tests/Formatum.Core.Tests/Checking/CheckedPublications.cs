using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Edits;
using Formatum.Core.Tests.Typesetting;

namespace Formatum.Core.Tests.Checking;

/// <summary>Publications to check, and how they are checked.</summary>
internal static class CheckedPublications
{
    public static readonly HalfWide Fonts = new();

    public static readonly CheckProfile Offset = CheckProfile.Usual.Single(p => p.Id == CheckProfile.OffsetId);

    private static double Mm(double mm) => Units.Millimetres(mm);

    /// <summary>Four facing pages of A4, each with a word in its middle, so that none is blank: nothing is to be found.</summary>
    public static Publication Clean(int pages = 4)
    {
        var p = Publication.Create(new() { Name = "C", PageWidth = Mm(210), PageHeight = Mm(297), Facing = true, Margins = new(36, 36, 36, 36) }, pages);
        for (int page = 1; page <= pages; page++) p = p.Text(page, new(Mm(90), Mm(200), Mm(40), Mm(20)), "Clay");
        return p;
    }

    public static Publication Text(this Publication p, int page, Box box, string words, TextStyle? style = null) =>
        p.Do(new MakeFrame { Page = page, Box = box, Text = new([.. words.Split('\n').Select(w => new Paragraph(w, style ?? TextStyle.Usual))]) });

    public static LinkedImage Image(string name, int width, int height, double ppi = 300, char hash = 'a') => new()
    {
        Id = 0,
        Name = name,
        Path = "/" + name,
        Bytes = 1,
        Modified = default,
        ContentHash = new(hash, 64),
        Format = "jpeg",
        StoredWidthPx = width,
        StoredHeightPx = height,
        StoredPpiX = ppi,
        StoredPpiY = ppi,
    };

    public static Publication Linked(this Publication p, params LinkedImage[] images) => p.Do(new LinkImages([.. images]));

    /// <summary>A frame on page 1, with the picture that was linked last.</summary>
    public static Publication Placed(this Publication p, Box box, int page = 1) => p.Do(new MakeFrame
    {
        Page = page,
        Box = box,
        ImageId = p.Images.Keys.Max(),
    });

    public static Frame Last(this Publication p) => p.Frames[p.Frames.Keys.Max()];

    public static PublicationFindings Check(this Publication p, CheckFacts? facts = null, CheckProfile? profile = null) =>
        PublicationFindings.Of(p, profile ?? Offset, facts ?? CheckFacts.None, Fonts);

    public static Finding? Found(this Publication p, FindingKind kind, CheckFacts? facts = null, CheckProfile? profile = null) =>
        p.Check(facts, profile).All.SingleOrDefault(f => f.Kind == kind);

    /// <summary>The publication with findings of a kind mended, as one step.</summary>
    public static Publication Mended(this Publication p, FindingKind kind, string? remedy = null, CheckProfile? profile = null)
    {
        var mending = Mending.Of(p, [.. p.Check(profile: profile).All.Where(f => f.Kind == kind)], remedy, profile ?? Offset, Fonts);
        mending.Left.ShouldBeEmpty();
        return p.Do(mending.Edit.ShouldNotBeNull());
    }

    public static CheckProfile With(FindingKind kind, Severity severity) => Offset with { Kinds = [new(kind, severity)] };

    public static readonly Colour InkBlack = new CmykColour(0, 0, 0, 1);
}
