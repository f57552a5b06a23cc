using System.Globalization;
using System.Text;
using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Output.Pdf;

/// <summary>What a file says of itself.</summary>
internal static class PdfMetadata
{
    public const string Maker = "Formatum";

    /// <summary>The information dictionary (ISO 32000-1, 14.3.3).</summary>
    public static string Info(Setup setup, PdfOptions options) => $"<</Title {PdfSyntax.Text(setup.Name)}/Creator {PdfSyntax.Text(Maker)}/Producer " +
        $"{PdfSyntax.Text(Maker)}/CreationDate {PdfSyntax.Date(options.Time)}/ModDate {PdfSyntax.Date(options.Time)}/Trapped/False>>";

    /// <summary>The same as XMP (14.3.2), and for print that it is PDF/X-4 (ISO 15930-7, 6.15).</summary>
    /// <param name="setup">The publication's.</param>
    /// <param name="options">What was wanted.</param>
    /// <param name="identity">The file's identity.</param>
    public static byte[] Xmp(Setup setup, PdfOptions options, ReadOnlySpan<byte> identity)
    {
        string title = SvgWriter.Escape(setup.Name), id = new Guid(identity[..16], bigEndian: true).ToString();
        string time = options.Time.ToString("yyyy-MM-dd'T'HH:mm:sszzz", CultureInfo.InvariantCulture);
        string print = options.Press is null ? "" : "\n<pdfxid:GTS_PDFXVersion>PDF/X-4</pdfxid:GTS_PDFXVersion>";
        return Encoding.UTF8.GetBytes($"""
            <?xpacket begin="{'\uFEFF'}" id="W5M0MpCehiHzreSzNTczkc9d"?>
            <x:xmpmeta xmlns:x="adobe:ns:meta/">
            <rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
            <rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/"
            xmlns:xmpMM="http://ns.adobe.com/xap/1.0/mm/" xmlns:pdf="http://ns.adobe.com/pdf/1.3/" xmlns:pdfxid="http://www.npes.org/pdfx/ns/id/">
            <dc:format>application/pdf</dc:format>
            <dc:title><rdf:Alt><rdf:li xml:lang="x-default">{title}</rdf:li></rdf:Alt></dc:title>
            <xmp:CreatorTool>{Maker}</xmp:CreatorTool>
            <xmp:CreateDate>{time}</xmp:CreateDate>
            <xmp:ModifyDate>{time}</xmp:ModifyDate>
            <xmp:MetadataDate>{time}</xmp:MetadataDate>
            <xmpMM:DocumentID>uuid:{id}</xmpMM:DocumentID>
            <xmpMM:InstanceID>uuid:{id}</xmpMM:InstanceID>
            <xmpMM:VersionID>1</xmpMM:VersionID>
            <xmpMM:RenditionClass>default</xmpMM:RenditionClass>
            <pdf:Producer>{Maker}</pdf:Producer>
            <pdf:Trapped>False</pdf:Trapped>{print}
            </rdf:Description>
            </rdf:RDF>
            </x:xmpmeta>
            <?xpacket end="w"?>
            """.ReplaceLineEndings("\n"));
    }

    /// <summary>For which press the file is made (ISO 15930-7, 6.2.2): by its profile, which nobody keeps a list of.</summary>
    /// <param name="profile">The press.</param>
    /// <param name="stream">The profile in the file.</param>
    public static string OutputIntent(ColourProfile profile, int stream) => $"<</Type/OutputIntent/S/GTS_PDFX/OutputConditionIdentifier (Custom)/Info " +
        $"{PdfSyntax.Text(profile.Description.Length > 0 ? profile.Description : "Four inks")}/DestOutputProfile {PdfSyntax.Reference(stream)}>>";
}
