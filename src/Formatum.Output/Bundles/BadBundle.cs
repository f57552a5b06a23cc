namespace Formatum.Output.Bundles;

/// <summary>A bundle that is not taken in; the message says why and what to do. Nothing was changed.</summary>
public sealed class BadBundle : Exception
{
    public BadBundle(string message) : base(message) { }
    public BadBundle(string message, Exception cause) : base(message, cause) { }
}
