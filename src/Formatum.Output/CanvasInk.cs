using Formatum.Core.Colours;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>In what a canvas shows colours.</summary>
internal abstract class CanvasInk
{
    /// <summary>As a screen shows them.</summary>
    public static CanvasInk Screen { get; } = new ScreenInk();

    /// <summary>What is painted for a colour.</summary>
    public abstract SKColor Of(Colour colour);

    /// <summary>Whether letters of a colour leave what is beneath them.</summary>
    public virtual bool LeavesBeneath(Colour ink) => false;

    private sealed class ScreenInk : CanvasInk
    {
        public override SKColor Of(Colour colour) => SKColor.Parse(colour.Hex);
    }
}
