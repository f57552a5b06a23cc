using System.Collections.Concurrent;
using System.Reflection;

namespace Formatum.Core.Colours;

/// <summary>
/// How four inks look once printed, as sRGB: what a press's profile says of mixtures on a grid, and between them taken linearly (ISO 15076-1 does so with the
/// tables of profiles). It is small enough to be kept with a publication, which then looks the same wherever it is opened.
/// </summary>
public sealed class InkTable
{
    /// <summary>So many shares of each ink, from none to full, are on the grid.</summary>
    public const int Side = 7;

    /// <summary>Red, green and blue of each mixture; cyan changes slowest, black fastest.</summary>
    public const int Bytes = Side * Side * Side * Side * 3;

    private static readonly Lazy<InkTable> OfGeneral = new(() => new(Shipped()));

    private static readonly ConcurrentDictionary<string, InkTable> Known = new();

    /// <summary>More tables than presses are in use are not kept.</summary>
    private const int MostKnown = 100;

    private readonly byte[] _shown;

    private InkTable(byte[] shown) => _shown = shown;

    /// <summary>That of four inks in general.</summary>
    public static InkTable General => OfGeneral.Value;

    /// <param name="text">Its bytes in base 64; null for that of four inks in general.</param>
    public static InkTable Of(string? text)
    {
        if (text is null) return General;
        if (Known.TryGetValue(text, out var known)) return known;
        if (Known.Count >= MostKnown) Known.Clear();
        return Known[text] = TryRead(text) is { } bytes ? new(bytes) : General;
    }

    /// <summary>Whether a text is a table.</summary>
    public static bool IsTable(string text) => TryRead(text) is not null;

    private static byte[]? TryRead(string text)
    {
        byte[] bytes = new byte[Bytes];
        return Convert.TryFromBase64String(text, bytes, out int read) && read == Bytes ? bytes : null;
    }

    /// <summary>The mixtures on the grid, in order.</summary>
    public static IEnumerable<CmykColour> Grid()
    {
        for (int i = 0; i < Bytes / 3; i++)
            yield return new(Share(i / (Side * Side * Side)), Share(i / (Side * Side)), Share(i / Side), Share(i));
        static double Share(int at) => at % Side / (Side - 1.0);
    }

    /// <summary>How inks look.</summary>
    /// <param name="cyan">0 to 1, as the others.</param>
    /// <param name="magenta">Magenta.</param>
    /// <param name="yellow">Yellow.</param>
    /// <param name="key">Black.</param>
    public RgbColour Shown(double cyan, double magenta, double yellow, double key)
    {
        Span<int> from = stackalloc int[4];
        Span<double> beyond = stackalloc double[4];
        ReadOnlySpan<double> inks = [cyan, magenta, yellow, key];
        for (int i = 0; i < 4; i++)
        {
            double at = Math.Clamp(inks[i], 0, 1) * (Side - 1);
            from[i] = Math.Min((int)at, Side - 2);
            beyond[i] = at - from[i];
        }
        Span<double> sum = stackalloc double[3];
        sum.Clear();
        for (int corner = 0; corner < 16; corner++)
        {
            double weight = 1;
            int index = 0;
            for (int i = 0; i < 4; i++)
            {
                int up = corner >> i & 1;
                weight *= up == 1 ? beyond[i] : 1 - beyond[i];
                index = index * Side + from[i] + up;
            }
            for (int part = 0; part < 3 && weight > 0; part++) sum[part] += weight * _shown[index * 3 + part];
        }
        return new((byte)Math.Round(sum[0]), (byte)Math.Round(sum[1]), (byte)Math.Round(sum[2]));
    }

    private static byte[] Shipped()
    {
        using var text = new StreamReader(Assembly.GetExecutingAssembly().GetManifestResourceStream("general-press.txt")!);
        return Convert.FromBase64String(text.ReadToEnd());
    }
}
