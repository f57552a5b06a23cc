namespace Formatum.Output.Fonts;

/// <summary>A font that is not taken in; the message says why and what to do.</summary>
public sealed class BadFont : Exception
{
    public BadFont(string message) : base(message) { }
    public BadFont(string message, Exception cause) : base(message, cause) { }
}
