using System.Collections.Immutable;
using System.Globalization;
using System.Xml;
using System.Xml.Linq;

namespace Formatum.PrintShop;

/// <summary>What a job ticket asks for. Lengths in points.</summary>
/// <param name="Job">What whoever sent it calls the job.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Copies">How many.</param>
/// <param name="Width">Of a finished page.</param>
/// <param name="Height">Of a finished page.</param>
/// <param name="Pages">How many pages.</param>
/// <param name="Binding">How they are held together; empty where they are not.</param>
/// <param name="Inks">The inks, by name.</param>
/// <param name="FileName">Of which file.</param>
/// <param name="FilePages">How many pages that has.</param>
public sealed record Ticket(string Job, string Title, int Copies, double Width, double Height, int Pages, string Binding, ImmutableArray<string> Inks,
    string FileName, int FilePages)
{
    private static readonly XNamespace Names = "http://www.CIP4.org/JDFSchema_2_0";

    /// <summary>Reads a ticket in XJDF 2: of it, what this shop needs.</summary>
    /// <exception cref="BadJob">It is no such ticket, or lacks something.</exception>
    public static Ticket Read(Stream stream)
    {
        XElement root;
        try
        {
            using var reader = XmlReader.Create(stream, new() { DtdProcessing = DtdProcessing.Prohibit, MaxCharactersInDocument = 1 << 20 });
            root = XElement.Load(reader);
        }
        catch (XmlException e)
        {
            throw new BadJob($"The ticket is no XML: {e.Message} Send one in XJDF 2.");
        }
        if (root.Name != Names + "XJDF") throw new BadJob("The ticket is no XJDF 2. Send one.");
        var product = Find(root, "Product");
        var layout = Find(product, "LayoutIntent");
        double[] size = [.. Of(layout, "FinishedDimensions").Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Number)];
        if (size.Length < 2 || !(size[0] > 0) || !(size[1] > 0))
            throw new BadJob("The ticket's FinishedDimensions are no size. Give width and height in points.");
        var run = root.Descendants(Names + "RunList").FirstOrDefault(r => r.Element(Names + "FileSpec") is not null)
            ?? throw new BadJob("The ticket names no file. Give a RunList with a FileSpec.");
        return new(Of(root, "JobID"), (string?)root.Attribute("DescriptiveName") ?? "", (int)Number(Of(product, "Amount")), size[0], size[1],
            (int)Number(Of(layout, "Pages")), (string?)product.Descendants(Names + "BindingIntent").FirstOrDefault()?.Attribute("BindingType") ?? "",
            [.. Of(Find(product, "SurfaceColor"), "ColorsUsed").Split(' ', StringSplitOptions.RemoveEmptyEntries)],
            Uri.UnescapeDataString(Of(run.Element(Names + "FileSpec")!, "URL")), (int)Number(Of(run, "NPage")));
    }

    private static XElement Find(XElement within, string name) => within.Descendants(Names + name).FirstOrDefault()
        ?? throw new BadJob($"The ticket has no {name}. Send one that says what is to be made.");

    private static string Of(XElement element, string attribute) => (string?)element.Attribute(attribute)
        ?? throw new BadJob($"The ticket's {element.Name.LocalName} has no {attribute}. Send one that says it.");

    private static double Number(string text) => double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double number)
        && double.IsFinite(number) ? number : throw new BadJob($"The ticket has \u201c{text}\u201d where a number belongs.");
}
