using System.Globalization;
using System.Xml;
using System.Xml.Linq;

namespace Formatum.Output.Tickets;

/// <summary>How what is printed is to be held together. The names in tickets are those of XJDF's BindingIntent.</summary>
public enum Binding
{
    None,
    SaddleStitch,
    SoftCover,
    HardCover,
    WireComb,
}

/// <summary>What somebody asks for, besides the file.</summary>
/// <param name="Copies">How many, 1 to 10,000,000.</param>
/// <param name="Binding">How they are held together.</param>
/// <param name="Note">Anything else, in words.</param>
public sealed record TicketWish(int Copies, Binding Binding, string Note)
{
    public const int MostCopies = 10_000_000, LongestNote = 2000;

    public void Check(Core.Checks.FieldErrors errors)
    {
        errors.Range("copies", Copies, 1, MostCopies, "Give how many copies are wanted, from 1 to 10,000,000.");
        errors.Choice("binding", Binding);
        if (Note.Length > LongestNote) errors.Add("note", $"The note has {Note.Length} characters; {LongestNote} is the most. Shorten it.");
    }
}

/// <summary>The file that a ticket goes with.</summary>
/// <param name="Name">What it is called, beside the ticket.</param>
/// <param name="MediaType">Of which kind it is.</param>
/// <param name="Bytes">How large it is.</param>
/// <param name="Sheets">How many pages it has itself: pages, spreads or sides of sheets.</param>
public sealed record TicketFile(string Name, string MediaType, long Bytes, int Sheets);

/// <summary>
/// A job as a print shop takes it: what is to be made and of which file, written in XJDF 2, the open job definition format of CIP4. The names of its elements
/// are written from memory of that standard; docs/handover.md lists those that are used.
/// </summary>
/// <param name="Id">The job's name, the same whenever this output is handed over.</param>
/// <param name="Product">What is to be made.</param>
/// <param name="Wish">What is asked for besides.</param>
/// <param name="File">Of which file.</param>
/// <param name="Time">When it was written.</param>
public sealed record JobTicket(string Id, PrintProduct Product, TicketWish Wish, TicketFile File, DateTimeOffset Time)
{
    public const string MediaType = "application/vnd.cip4-xjdf+xml", Ending = ".xjdf";

    public static readonly XNamespace Names = "http://www.CIP4.org/JDFSchema_2_0";

    private static readonly string[] FourInks = ["Cyan", "Magenta", "Yellow", "Black"];

    private string Title => Product.Edition.Length == 0 ? Product.Name : $"{Product.Name}, {Product.Edition}";

    public byte[] Write()
    {
        var ticket = new XElement(Names + "XJDF", new XAttribute("JobID", Id), new XAttribute("Types", "Product"), new XAttribute("Version", "2.1"),
            new XAttribute("DescriptiveName", Xml(Title)), Audit(), new XElement(Names + "ProductList", Whole()), RunList(), Colours());
        using var into = new MemoryStream();
        using (var writer = XmlWriter.Create(into, new() { Indent = true, Encoding = new System.Text.UTF8Encoding(false) })) ticket.WriteTo(writer);
        return into.ToArray();
    }

    private XElement Audit() => new(Names + "AuditPool", new XElement(Names + "AuditCreated", new XElement(Names + "Header",
        new XAttribute("AgentName", "Formatum"), new XAttribute("DeviceID", "Formatum"), new XAttribute("Time", Time.ToString("yyyy-MM-dd'T'HH:mm:sszzz",
        CultureInfo.InvariantCulture)))));

    private XElement Whole()
    {
        var product = new XElement(Names + "Product", new XAttribute("ID", "product"), new XAttribute("IsRoot", "true"),
            new XAttribute("Amount", Wish.Copies), new XAttribute("DescriptiveName", Xml(Title)));
        if (Wish.Note.Length > 0) product.Add(new XElement(Names + "Comment", Xml(Wish.Note)));
        if (Product.Folded.Length > 0) product.Add(new XElement(Names + "Comment", Product.Folded));
        product.Add(Intent("LayoutIntent", new XAttribute("FinishedDimensions", $"{Number(Product.Width)} {Number(Product.Height)} 0"),
            new XAttribute("Pages", Product.Pages), new XAttribute("Sides", Product.Pages > 1 ? "TwoSided" : "OneSided")));
        product.Add(Intent("ColorIntent", new XElement(Names + "SurfaceColor", new XAttribute("Surface", Product.Pages > 1 ? "Both" : "Front"),
            new XAttribute("ColorsUsed", string.Join(' ', FourInks.Concat(Product.Spots.Select(s => Token(s.Name))))))));
        if (Wish.Binding != Binding.None)
            product.Add(Intent("BindingIntent", new XAttribute("BindingType", Wish.Binding),
                new XAttribute("BindingSide", Product.BindsRight ? "Right" : "Left")));
        return product;
    }

    private static XElement Intent(string name, params object[] content) =>
        new(Names + "Intent", new XAttribute("Name", name), new XElement(Names + name, content));

    private XElement RunList() => Set("RunList", new XElement(Names + "Resource", new XElement(Names + "RunList", new XAttribute("NPage", File.Sheets),
        new XElement(Names + "FileSpec", new XAttribute("URL", Uri.EscapeDataString(File.Name)), new XAttribute("MimeType", File.MediaType),
            new XAttribute("FileSize", File.Bytes)))));

    /// <summary>Inks besides the four: their plates, and what comes near to them.</summary>
    private XElement? Colours() => Product.Spots.IsEmpty ? null : Set("Color", [.. Product.Spots.Select(s => new XElement(Names + "Resource",
        new XElement(Names + "Part", new XAttribute("Separation", Token(s.Name))), new XElement(Names + "Color", new XAttribute("ActualColorName", Xml(s.Name)),
            new XAttribute("CMYK", $"{Number(s.StandIn.Cyan)} {Number(s.StandIn.Magenta)} {Number(s.StandIn.Yellow)} {Number(s.StandIn.Key)}"))))]);

    private static XElement Set(string name, params XElement[] resources) =>
        new(Names + "ResourceSet", new XAttribute("Name", name), new XAttribute("Usage", "Input"), resources);

    /// <summary>A name among several that blanks part.</summary>
    private static string Token(string name) => Xml(string.Join('_', name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)));

    /// <summary>Without what no XML may hold.</summary>
    private static string Xml(string text) => new([.. text.Where(c => XmlConvert.IsXmlChar(c) || char.IsSurrogate(c))]);

    private static string Number(double value) => Math.Round(value, 4).ToString("0.####", CultureInfo.InvariantCulture);
}
