namespace Formatum.Imaging;

/// <summary>
/// A conversion of colours that was worked out for all mixtures on an even grid, and is taken between them from the nearest ones: Little CMS itself does so,
/// but takes some 50 ms each time before it can begin.
/// </summary>
/// <param name="inputs">How many parts a colour has that is converted.</param>
/// <param name="outputs">How many parts it has then.</param>
/// <param name="side">How many values of each part are on the grid.</param>
/// <param name="convert">Converts many colours at once; all parts from 0 to 65,535.</param>
internal sealed class ColourGrid(int inputs, int outputs, int side, Func<ushort[], ushort[]> convert)
{
    private const double Full = ushort.MaxValue;

    private readonly Lazy<ushort[]> _values = new(() => convert(Mixtures(inputs, side)));

    /// <summary>The colours on a grid, one behind the other; the last part changes fastest.</summary>
    private static ushort[] Mixtures(int parts, int side)
    {
        int count = (int)Math.Pow(side, parts);
        var all = new ushort[count * parts];
        for (int i = 0; i < count; i++)
            for (int part = parts - 1, rest = i; part >= 0; part--, rest /= side)
                all[i * parts + part] = (ushort)Math.Round(rest % side * Full / (side - 1));
        return all;
    }

    /// <summary>
    /// A colour converted: from the corners of the simplex of the grid in which it lies (Kasson and others, Performing color space conversions with
    /// three-dimensional linear interpolation, 1995, from memory; in four parts alike).
    /// </summary>
    /// <param name="colour">Its parts, each from 0 to 1.</param>
    /// <returns>Its parts, each from 0 to 1.</returns>
    public double[] Converted(ReadOnlySpan<double> colour)
    {
        Span<double> beyond = stackalloc double[inputs];
        Span<int> order = stackalloc int[inputs], step = stackalloc int[inputs];
        int at = 0;
        for (int part = inputs - 1, size = 1; part >= 0; part--, size *= side)
        {
            double place = Math.Clamp(colour[part], 0, 1) * (side - 1);
            int from = Math.Min((int)place, side - 2);
            (beyond[part], step[part], order[part]) = (place - from, size, part);
            at += from * size;
        }
        beyond.Sort(order, (a, b) => b.CompareTo(a));
        var result = new double[outputs];
        Add(result, at, 1 - beyond[0]);
        for (int i = 0; i < inputs; i++)
            Add(result, at += step[order[i]], beyond[i] - (i + 1 < inputs ? beyond[i + 1] : 0));
        return result;
    }

    private void Add(double[] result, int at, double share)
    {
        for (int part = 0; part < outputs; part++) result[part] += _values.Value[at * outputs + part] / Full * share;
    }
}
