using System.Globalization;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Pages;

/// <summary>A set-up as it is typed: text, so that nothing typed is lost however wrong it is.</summary>
public sealed class SetupForm
{
    public const string OwnSize = "own";

    public string? Name { get; set; }
    public string? Edition { get; set; }
    public string? Size { get; set; } = "A4";
    public bool Sideways { get; set; }
    public string? Width { get; set; } = "210 mm";
    public string? Height { get; set; } = "297 mm";
    public bool Facing { get; set; } = true;
    public string? Pages { get; set; } = "8";
    public string? FirstFolio { get; set; } = "1";
    public bool BindsRight { get; set; }
    public string? Top { get; set; } = "15 mm";
    public string? Bottom { get; set; } = "18 mm";
    public string? Inside { get; set; } = "18 mm";
    public string? Outside { get; set; } = "14 mm";
    public string? Columns { get; set; } = "3";
    public string? Gutter { get; set; } = "5 mm";
    public string? Bleed { get; set; } = "3 mm";
    public LengthUnit Unit { get; set; } = LengthUnit.Millimetre;
    public string? AssumedPpi { get; set; } = "72";
    public string? PrintPpi { get; set; } = "300";
    public string? FloorPpi { get; set; } = "150";
    public bool SuggestSubjects { get; set; }

    /// <summary>The publication's revision when the form was opened.</summary>
    public long Seen { get; set; }

    public static SetupForm Of(Standing standing)
    {
        var publication = standing.Publication;
        var s = publication.Setup;
        string Text(double points) => Units.Text(points, s.Unit);
        var paper = PaperSize.Of(s.PageWidth, s.PageHeight);
        return new()
        {
            Name = s.Name,
            Edition = s.Edition,
            Size = paper?.Name ?? OwnSize,
            Sideways = paper is not null && s.PageWidth > s.PageHeight,
            Width = Text(s.PageWidth),
            Height = Text(s.PageHeight),
            Facing = s.Facing,
            FirstFolio = s.FirstFolio.ToString(CultureInfo.InvariantCulture),
            BindsRight = s.BindsRight,
            Pages = publication.PageCount.ToString(CultureInfo.InvariantCulture),
            Top = Text(s.Margins.Top),
            Bottom = Text(s.Margins.Bottom),
            Inside = Text(s.Margins.Inside),
            Outside = Text(s.Margins.Outside),
            Columns = s.Columns.Count.ToString(CultureInfo.InvariantCulture),
            Gutter = Text(s.Columns.Gutter),
            Bleed = Text(s.Bleed),
            Unit = s.Unit,
            AssumedPpi = s.AssumedPpi.ToString(CultureInfo.InvariantCulture),
            PrintPpi = s.PrintPpi.ToString(CultureInfo.InvariantCulture),
            FloorPpi = s.FloorPpi.ToString(CultureInfo.InvariantCulture),
            SuggestSubjects = s.SuggestSubjects,
            Seen = standing.Revision,
        };
    }

    /// <summary>Reads what was typed; what cannot be read is told in <paramref name="errors"/> under the automation interface's field names.</summary>
    /// <param name="over">The set-up to keep what the form does not ask for from; null for a new publication.</param>
    /// <param name="errors">Takes what is wrong.</param>
    public (Setup Setup, int Pages) Read(Setup? over, FieldErrors errors)
    {
        double width, height;
        if (Size == OwnSize)
        {
            width = Length("page.width", Width, errors);
            height = Length("page.height", Height, errors);
        }
        else
        {
            var paper = PaperSize.Named(Size);
            if (paper is null) errors.Add("page.size", "Choose one of the sizes, or give your own.");
            (width, height) = paper is null ? (1000, 1000) : Sideways ? (paper.Height, paper.Width) : (paper.Width, paper.Height);
        }
        var setup = (over ?? new Setup { Name = "", PageWidth = 0, PageHeight = 0 }) with
        {
            Name = Name?.Trim() ?? "",
            Edition = Edition?.Trim() ?? "",
            PageWidth = width,
            PageHeight = height,
            Facing = Facing,
            FirstFolio = Whole("firstFolio", FirstFolio, errors),
            BindsRight = BindsRight,
            Bleed = Length("bleed", Bleed, errors),
            Margins = new(Length("margins.top", Top, errors), Length("margins.bottom", Bottom, errors), Length("margins.inside", Inside, errors), Length("margins.outside", Outside, errors)),
            Columns = new(Whole("columns.count", Columns, errors), Length("columns.gutter", Gutter, errors)),
            Unit = Enum.IsDefined(Unit) ? Unit : LengthUnit.Millimetre,
            AssumedPpi = Number("assumedPpi", AssumedPpi, errors),
            PrintPpi = Number("printPpi", PrintPpi, errors),
            FloorPpi = Number("floorPpi", FloorPpi, errors),
            SuggestSubjects = SuggestSubjects,
        };
        int pages = over is null ? Whole("pages", Pages, errors) : 1;
        if (!errors.Any)
        {
            setup.Check(errors);
            if (pages is < 1 or > Setup.MostPages) errors.Add("pages", $"{pages} pages cannot be made. Give a number from 1 to {Setup.MostPages}.");
        }
        return (setup, pages);
    }

    private double Length(string field, string? text, FieldErrors errors)
    {
        if (Units.TryParse(text, Unit, out double points)) return points;
        errors.Add(field, string.IsNullOrWhiteSpace(text) ? "Type a length, such as 15 mm." : $"\u201c{text}\u201d is not a length. Type a number with or without a unit: 15, 15 mm, 1p6, 0.5 in.");
        return 0;
    }

    private static int Whole(string field, string? text, FieldErrors errors)
    {
        if (int.TryParse(text?.Trim(), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out int value)) return value;
        errors.Add(field, $"\u201c{text}\u201d is not a whole number. Type one, such as 8.");
        return 1;
    }

    private static double Number(string field, string? text, FieldErrors errors)
    {
        if (double.TryParse(text?.Trim().Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out double value)) return value;
        errors.Add(field, $"\u201c{text}\u201d is not a resolution. Type a number of pixels per inch, such as 72.");
        return 72;
    }
}
