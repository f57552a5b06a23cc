namespace Formatum.Core.Fitting;

/// <summary>Effective resolutions against what is asked of them.</summary>
public static class Resolutions
{
    /// <summary>
    /// What nobody sees, in ppi. Files keep 300 ppi as whole pixels a metre or a centimetre (PNG 1.2, 11.3.5.3: 11,811 a metre are 299.9994 ppi), so half a
    /// ppi is no difference: common practice, no source.
    /// </summary>
    public const double Slack = 0.5;

    /// <summary>Whether a resolution is as high as is asked, both in ppi.</summary>
    public static bool Reaches(double ppi, double asked) => ppi >= asked - Slack;
}
