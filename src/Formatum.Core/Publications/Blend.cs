namespace Formatum.Core.Publications;

/// <summary>How a frame is mixed with what lies beneath it (Compositing and Blending 1, 10: mix-blend-mode).</summary>
public enum Blend
{
    Normal,
    Multiply,
    Screen,
    Overlay,
    Darken,
    Lighten,
    ColorDodge,
    ColorBurn,
    HardLight,
    SoftLight,
    Difference,
    Exclusion,
    Hue,
    Saturation,
    Color,
    Luminosity,
}
