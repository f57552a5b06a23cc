using Formatum.Core.Colours;

namespace Formatum.Core.Stories;

/// <summary>What the names that settings of text use stand for.</summary>
public interface ITextNames
{
    /// <summary>The files of a family that is not shipped; null for one that is, or is not here.</summary>
    FontFiles? FilesOf(string family);

    /// <summary>A colour with one of the palette looked up.</summary>
    Colour ColourOf(Colour colour);
}
