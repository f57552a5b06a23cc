using System.Text.Json;
using Formatum.Core.Publications;

namespace Formatum.Imaging.Apart;

/// <summary>The other end of <see cref="ReadersApart"/>: a process that reads pictures, line by line as it is asked, until nobody asks any more.</summary>
public static class PictureWorker
{
    /// <summary>The word by which the program becomes one.</summary>
    public const string Verb = "read-pictures";

    /// <param name="arguments">Behind the verb: the folder of previews, and the most bytes and pixels of a picture.</param>
    public static void Run(string[] arguments)
    {
        ReaderLimits.Take();
        var previews = new PreviewStore(arguments[0]);
        var culture = System.Globalization.CultureInfo.InvariantCulture;
        var reader = new PictureReader(new(long.Parse(arguments[1], culture), long.Parse(arguments[2], culture)), previews);
        // Whatever a library says must not stand between the answers.
        using var answers = new StreamWriter(Console.OpenStandardOutput()) { AutoFlush = true };
        Console.SetOut(TextWriter.Null);
        while (Console.In.ReadLine() is { } line)
            answers.WriteLine(Answer(JsonSerializer.Deserialize<Question>(line)!, reader, previews).ToLine());
    }

    private static Reply Answer(Question question, PictureReader reader, PreviewStore previews)
    {
        try
        {
            var known = question.Known is null ? null : PartJson.Read<LinkedImage>(PartKind.Image, question.Known);
            bool isMeasured = question.Work is Work.Pixels or Work.Samples or Work.Profile;
            int seconds = !isMeasured && (known?.Format == "svg" || IsDrawing(question.Path)) ? ReaderLimits.ForDrawing : ReaderLimits.ForPicture;
            ReaderLimits.Allow(seconds);
            switch (question.Work)
            {
                case Work.Read:
                    return new(Image: PartJson.Write(reader.Read(question.Path, question.Text, question.Bare,
                        words => ReaderLimits.Allow(words ? ReaderLimits.ForWords : seconds))));
                case Work.Previews:
                    previews.Make(known!);
                    return new();
                case Work.Borrow:
                    previews.Borrow(question.Path, question.Text);
                    return new();
                case Work.Profile:
                    ColourProfile.ReadPress(question.Path);
                    return new();
                case Work.Drawing:
                    if (DrawingReader.Read(known!) is { } drawing) File.WriteAllBytes(question.Text, drawing.ToJson());
                    return new();
                case Work.Samples:
                    return PictureSamples.Decode(known!, new(question.Width, question.Height, question.Press), (samples, kind, alpha, profile) =>
                    {
                        samples.Rawsave(question.Text);
                        if (profile is not null) File.WriteAllBytes(question.Text + ReadersApart.ProfileEnding, profile);
                        return new Reply(Width: samples.Width, Height: samples.Height, HasAlpha: alpha, Kind: kind);
                    });
                default:
                    return PictureRaster.Decode(known!, new(question.Width, question.Height, question.Press), question.Part.ToBox(), (pixels, alpha, covers) =>
                    {
                        pixels.Rawsave(question.Text);
                        return new Reply(Width: pixels.Width, Height: pixels.Height, HasAlpha: alpha, Covers: UnitPart.Of(covers));
                    });
            }
        }
        catch (Exception e) when (e is BadPicture or BadProfile)
        {
            return new(Error: e.Message);
        }
        catch (OutOfMemoryException)
        {
            return new(Error: PictureReader.TooMuchMemory);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return new(Error: e.Message, Unkept: true);
        }
        catch (NetVips.VipsException e)
        {
            return new(Error: PictureReader.Reason(e));
        }
    }

    internal static bool IsDrawing(string path)
    {
        try
        {
            using var stream = File.OpenRead(path);
            return PictureFormat.Of(stream) == "svg";
        }
        catch (BadPicture)
        {
            return false;
        }
    }
}
