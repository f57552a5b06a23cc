using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Press;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Links;

namespace Formatum.Web.Outputs;

/// <summary>How much of each ink lies at a place, in per cent.</summary>
public sealed record InkAnswer(double Cyan, double Magenta, double Yellow, double Black, IReadOnlyDictionary<string, double> Spots, double Sum)
{
    /// <summary>"C 12  M 80  Y 70  K 5: 167 %".</summary>
    public string Words => string.Create(CultureInfo.InvariantCulture, $"C {Cyan:0}  M {Magenta:0}  Y {Yellow:0}  K {Black:0}")
        + string.Concat(Spots.Select(s => string.Create(CultureInfo.InvariantCulture, $"  {s.Key} {s.Value:0}")))
        + string.Create(CultureInfo.InvariantCulture, $": {Sum:0} %");

    /// <summary>Where the most ink lies, in shares of the width and height, and how much.</summary>
    public static (InkAnswer Ink, double X, double Y) Most(SeparatedPage page)
    {
        var (_, index) = page.Most();
        return (At(page, index), (double)(index % page.Width) / page.Width, (double)(index / page.Width) / page.Height);
    }

    public static InkAnswer At(SeparatedPage page, int index)
    {
        double Of(byte ink) => Math.Round(ink / 2.55, 1);
        int at = index * SeparatedPage.Parts;
        return new(Of(page.Inks[at]), Of(page.Inks[at + 1]), Of(page.Inks[at + 2]), Of(page.Inks[at + 3]),
            page.Spots.ToDictionary(s => s.Ink.Name, s => Of(s.Plate[index])), Math.Round(page.Coverage(index), 1));
    }
}

/// <summary>Spreads as their press will show them; those looked at last are kept, so that a pointer is answered at once.</summary>
public sealed class PressViews(PublicationStore store, HeavyWork heavy, PicturePixels pixels, ProfileStore profiles)
{
    private const int MostKept = 6;

    /// <summary>In usual offset printing no more ink lies anywhere, in per cent: common practice, no source.</summary>
    public const double UsualLimit = 300;

    private readonly Lock _gate = new();
    private readonly LinkedList<((int Publication, long Revision, int Spread) Key, Task<PressView> View)> _kept = new();

    /// <param name="id">The publication.</param>
    /// <param name="number">The spread, from 1.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="EditRefused">There is no such spread.</exception>
    public async Task<PressView> OfAsync(int id, int number, CancellationToken cancel)
    {
        var standing = await store.OpenAsync(id);
        var publication = standing.Publication;
        if (number < 1 || number > Spread.CountOf(publication))
            throw new EditRefused("spread", $"There is no spread {number}; the publication has {Spread.CountOf(publication)}.");
        var view = Kept((id, standing.Revision, number), publication);
        try
        {
            return await view.WaitAsync(cancel);
        }
        catch when (view.IsFaulted)
        {
            // What went wrong may be mended meanwhile: the file of a picture is put back.
            lock (_gate) Forget(view);
            throw;
        }
    }

    private Task<PressView> Kept((int Publication, long Revision, int Spread) key, Publication publication)
    {
        lock (_gate)
        {
            if (_kept.FirstOrDefault(k => k.Key == key) is { View: { } known }) return known;
            var made = heavy.RunAsync(cancel =>
            {
                var spread = Spread.At(publication, key.Spread - 1);
                return PressView.Of(Composer.Compose(publication, spread, Typefaces.All), spread.Trim, profiles.PressOf(publication.Setup),
                    pixels.Of(publication), heavy.MostPixels, cancel);
            }, CancellationToken.None);
            _kept.AddFirst((key, made));
            if (_kept.Count > MostKept) _kept.RemoveLast();
            return made;
        }
    }

    private void Forget(Task<PressView> view)
    {
        for (var node = _kept.First; node is not null; node = node.Next)
        {
            if (node.Value.View != view) continue;
            _kept.Remove(node);
            return;
        }
    }
}
