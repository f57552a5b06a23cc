using System.Collections.Immutable;
using System.Globalization;

namespace Formatum.Core.Checks;

/// <summary>One thing wrong with one value somebody gave.</summary>
/// <param name="Field">The value's name, as the automation interface spells it: "margins.inside".</param>
/// <param name="Message">What is wrong, why, and what to give instead.</param>
public sealed record FieldError(string Field, string Message);

/// <summary>Collects everything wrong with what somebody gave, so that all of it is told at once.</summary>
public sealed class FieldErrors
{
    private readonly ImmutableArray<FieldError>.Builder _errors = ImmutableArray.CreateBuilder<FieldError>();

    public bool Any => _errors.Count > 0;

    public ImmutableArray<FieldError> ToImmutable() => _errors.ToImmutable();

    public void Add(string field, string message) => _errors.Add(new(field, message));

    /// <summary>Adds an error where a value is not a number or lies outside the range; an open (null) value passes.</summary>
    public void Range(string field, double? value, double least, double most, string remedy) => Range(field, value, least, most, remedy, Figure);

    /// <summary>The same, of a value that is told in its own way.</summary>
    public void Range(string field, double? value, double least, double most, string remedy, Func<double, string> shown)
    {
        if (value is not { } v || (v >= least && v <= most)) return;
        Add(field, double.IsNaN(v) ? $"This is not a number. {remedy}" : $"{shown(v)} is out of range. {remedy}");
    }

    internal static string Figure(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);

    /// <summary>Adds an error where a choice is none of those there are.</summary>
    public void Choice(string field, Enum choice)
    {
        if (!Enum.IsDefined(choice.GetType(), choice)) Add(field, $"Choose one of {string.Join(", ", Enum.GetNames(choice.GetType()))}.");
    }

    /// <summary>Adds an error where a name is too long, or does not stand on one line; whether it may be empty is left to the caller.</summary>
    /// <param name="name">The name.</param>
    /// <param name="longest">The most characters.</param>
    /// <param name="field">The value's name; also what it is called.</param>
    public void Name(string name, int longest, string field = "name")
    {
        if (name.Length > longest) Add(field, $"The {field} has {name.Length} characters; {longest} is the most. Shorten it.");
        if (name.Any(char.IsControl)) Add(field, $"The {field} holds line ends, tabs or other controls, which cannot be. Type it anew.");
    }

    /// <exception cref="EditRefused">Something was wrong.</exception>
    public void ThrowIfAny()
    {
        if (Any) throw new EditRefused(ToImmutable());
    }
}

/// <summary>An edit that was not made, and why. The publication is as it was.</summary>
public class EditRefused(ImmutableArray<FieldError> errors) : Exception(string.Join(" ", errors.Select(e => e.Message)))
{
    public EditRefused(string field, string message) : this([new FieldError(field, message)]) { }

    public ImmutableArray<FieldError> Errors { get; } = errors;
}

/// <summary>What the edit is about is not there, or no longer.</summary>
public sealed class NoSuchPart(string field, string message) : EditRefused(field, message);
