using System.Globalization;
using Formatum.Core.Publications;
using Formatum.Output.Tickets;

namespace Formatum.Web.Outputs;

/// <summary>Words for outputs and recipes.</summary>
public static class OutputText
{
    /// <summary>A number of bytes as people read it.</summary>
    public static string Bytes(double bytes) => bytes switch
    {
        < 1 << 20 => string.Create(CultureInfo.InvariantCulture, $"{Math.Max(1, Math.Round(bytes / 1024))} kB"),
        < 1 << 30 => string.Create(CultureInfo.InvariantCulture, $"{bytes / (1 << 20):0.#} MB"),
        _ => string.Create(CultureInfo.InvariantCulture, $"{bytes / (1 << 30):0.##} GB"),
    };

    public static string Kind(OutputKind kind) => kind switch
    {
        OutputKind.Print => "PDF for print",
        OutputKind.Screen => "PDF for screens",
        OutputKind.Bundle => "All that is needed, as one ZIP",
        OutputKind.Book => "Book for reading programs (EPUB)",
        _ => "Pictures of pages",
    };

    /// <summary>The media type of an output's file.</summary>
    public static string MediaType(string fileName) => Path.GetExtension(fileName) switch
    {
        ".zip" => "application/zip",
        ".epub" => "application/epub+zip",
        _ => "application/pdf",
    };

    public static string Imposition(ImpositionKind kind) => kind switch
    {
        ImpositionKind.Booklet => "as a booklet, folded and stitched",
        ImpositionKind.Several => "several to a sheet, in order",
        ImpositionKind.CutAndStack => "in stacks, to be cut and laid upon each other",
        _ => "one to a sheet",
    };

    public static string Owner(RecipeOwner owner) => owner switch
    {
        RecipeOwner.Publication => "of this publication",
        RecipeOwner.House => "of the house",
        _ => "comes along",
    };

    public static string File(PictureFileKind kind) => kind switch
    {
        PictureFileKind.Jpeg => "JPEG",
        PictureFileKind.Webp => "WebP",
        _ => kind.ToString().ToUpperInvariant(),
    };

    public static string Binding(Binding binding) => binding switch
    {
        Output.Tickets.Binding.SaddleStitch => "folded and stitched",
        Output.Tickets.Binding.SoftCover => "glued, with a soft cover",
        Output.Tickets.Binding.HardCover => "with a hard cover",
        Output.Tickets.Binding.WireComb => "on a wire comb",
        _ => "loose or folded",
    };

    /// <summary>What came of a hand-over, after the name of where it went.</summary>
    public static string State(Handover handover) => handover.State switch
    {
        HandoverState.Sending => "on its way ...",
        HandoverState.Accepted => "accepted" + (handover.Job is { } job ? $" as {job}" : ""),
        HandoverState.Refused => "refused",
        HandoverState.Laid => $"laid there as {handover.Job}",
        _ => "not handed over",
    };

    public static string State(OutputNote note) => note.State switch
    {
        OutputState.Waiting => "waits for its turn",
        OutputState.Making => $"{note.Made} of {note.Sheets} made",
        OutputState.Done => Bytes(note.Bytes),
        OutputState.Stopped => "stopped",
        _ => "not made",
    };
}
